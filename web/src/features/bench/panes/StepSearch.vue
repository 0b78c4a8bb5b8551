<script setup lang="ts">
/** Adding a step: found by words, chosen by picture. */
import { computed, ref, watch } from 'vue'
import { useCatalogue, type StepKind } from '@/shared/catalogue'
import PathPicture from '@/shared/components/PathPicture.vue'

const props = defineProps<{ started: boolean; layer: boolean }>()
const emit = defineEmits<{ close: []; pick: [kind: StepKind] }>()
const catalogue = useCatalogue()
const words = ref('')
const at = ref(0)
const input = ref<{ focus(): void } | null>(null)

/** Steps that all words are found in, those first whose title or own words they are. */
const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  const rank = (s: StepKind) => {
    const places = [s.title, s.words, `${s.stage} ${s.description}`].map((t) => t.toLowerCase())
    const each = wanted.map((w) => places.findIndex((p) => p.includes(w)))
    return each.includes(-1) ? -1 : Math.max(0, ...each) * 10 + each.reduce((a, b) => a + b, 0)
  }
  return (catalogue.data?.steps ?? [])
    .filter((s) => (s.starts_with !== '') !== props.started && (s.starts_with === 'layer') <= props.layer && s.for_layers <= props.layer)
    .map((step, order) => ({ step, order, rank: rank(step) }))
    .filter((f) => f.rank >= 0)
    .sort((a, b) => a.rank - b.rank || a.order - b.order)
    .map((f) => f.step)
})
watch(found, () => (at.value = 0))

function key(event: Event) {
  if (!(event instanceof KeyboardEvent)) return
  const columns = 4
  const by = { ArrowDown: columns, ArrowUp: -columns, ArrowRight: 1, ArrowLeft: -1 }[event.key]
  if (by !== undefined) {
    event.preventDefault()
    at.value = Math.min(Math.max(at.value + by, 0), found.value.length - 1)
  } else if (event.key === 'Enter') {
    event.preventDefault()
    const kind = found.value[at.value]
    if (kind) emit('pick', kind)
  }
}
</script>

<template>
  <ElDialog :model-value="true" title="Add a step" width="760" top="8vh" @close="emit('close')" @opened="input?.focus()">
    <ElInput
      ref="input"
      v-model="words"
      placeholder="What should happen? For example: round opening, trim foot, perforate"
      aria-label="Search steps"
      @keydown="key"
    />
    <div class="grid" role="listbox" aria-label="Steps">
      <button
        v-for="(s, i) in found"
        :key="s.kind"
        class="plain-button tile"
        role="option"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        :title="s.description"
        @click="emit('pick', s)"
        @mouseenter="at = i"
      >
        <span class="picture">
          <PathPicture
            v-if="s.after"
            :path="s.after.path"
            :box="s.after.box"
            :folds="s.after.folds"
            :perforated="s.after.perforated"
            :drawn="s.after.drawn"
            :ghost="s.before?.path"
            :ghost-box="s.before?.box"
          />
        </span>
        <strong>{{ s.title }}</strong>
        <span class="soft">{{ s.stage }}</span>
      </button>
    </div>
    <p v-if="found[at]" class="description">{{ found[at]!.description }}</p>
    <p v-else class="soft description">No step does “{{ words }}”. Try a plainer word.</p>
  </ElDialog>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 10px;
  margin-top: 12px;
  max-height: 52vh;
  overflow: auto;
}
.tile {
  display: grid;
  justify-items: center;
  padding: 8px;
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-text);
}
.tile .soft {
  font-size: var(--size-figure);
}
.at {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
}
.picture {
  width: 128px;
  height: 84px;
}
.description {
  margin-top: 12px;
  min-height: 3em;
}
</style>
