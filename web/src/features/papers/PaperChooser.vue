<script setup lang="ts">
/** Papers of the shelf as swatches, and the values of the one that is chosen. */
import { computed } from 'vue'
import type { Paper, Unit } from '@/shared/api/document'
import { tell, tellError } from '@/shared/messages'
import { useShelf } from '@/shared/shelf'
import { t } from '@/shared/words'
import PaperSwatch from './PaperSwatch.vue'
import PaperValues from './PaperValues.vue'

const props = defineProps<{ modelValue: Paper | null; unit: Unit; folded?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [paper: Paper] }>()
const shelf = useShelf()
const paper = computed(() => props.modelValue)

async function keep() {
  if (!paper.value) return
  try {
    emit('update:modelValue', await shelf.keepPaper(paper.value))
    tell(t('Kept on the shelf.'))
  } catch (error) {
    tellError(error)
  }
}
</script>

<template>
  <div class="chooser">
    <div v-arrows class="swatches" role="radiogroup" :aria-label="$t('Papers')">
      <button
        v-for="p in shelf.papers"
        :key="p.id"
        class="plain-button swatch"
        role="radio"
        :aria-checked="paper?.id === p.id"
        :class="{ chosen: paper?.id === p.id }"
        :title="`${p.name}, ${p.weight} g/m²`"
        @click="emit('update:modelValue', p)"
      >
        <PaperSwatch :paper="p" />
        <span class="visually-hidden">{{ p.name }}</span>
      </button>
    </div>
    <details v-if="paper" :open="!folded">
      <summary :class="{ gone: !folded }">{{ paper.name }}, <span class="figure">{{ paper.weight }} g/m²</span></summary>
      <PaperValues :paper="paper" :unit="unit" @change="(p) => emit('update:modelValue', p)" />
      <ElButton text size="small" class="keep" @click="keep">{{ $t('Keep it on the shelf as a new paper') }}</ElButton>
    </details>
  </div>
</template>

<style scoped>
.chooser {
  display: grid;
  gap: 10px;
  margin-top: 8px;
}
.swatches {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.swatch {
  width: 46px;
  padding: 3px;
  border: 1px solid var(--border-strong);
  border-radius: 6px;
}
.swatch svg {
  display: block;
  width: 100%;
}
.chosen {
  border-color: var(--accent);
  box-shadow: 0 0 0 1px var(--accent);
}
summary {
  font-size: var(--size-text);
  cursor: pointer;
}
.gone {
  display: none;
}
.keep {
  justify-self: start;
}
</style>
