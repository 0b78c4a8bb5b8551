<script setup lang="ts">
/** The pieces of the design as tabs, each with a dot in its paper's colour. */
import { computed } from 'vue'
import type { DesignData } from '@/shared/api/document'
import { askText } from '@/shared/messages'

const props = defineProps<{ document: DesignData; trouble: string; slow: boolean; stopped: boolean }>()
const emit = defineEmits<{ stop: []; again: []; remove: [piece: string]; rename: [piece: string, name: string] }>()
const chosen = defineModel<string>({ required: true })
const paperOf = (id: string) => props.document.papers.find((p) => p.id === id)
const paper = computed(() => {
  const piece = props.document.pieces.find((p) => p.id === chosen.value)
  return piece && paperOf(piece.paper)
})
async function ask() {
  const now = props.document.pieces.find((p) => p.id === chosen.value)?.name ?? ''
  const name = await askText('Rename the piece', 'What is this piece called?', now)
  if (name) emit('rename', chosen.value, name.slice(0, 60))
}
</script>

<template>
  <div class="pieces" role="tablist" aria-label="Pieces">
    <button
      v-for="p in document.pieces"
      :key="p.id"
      class="plain-button piece"
      role="tab"
      :aria-selected="p.id === chosen"
      :class="{ chosen: p.id === chosen }"
      @click="chosen = p.id"
    >
      <svg viewBox="0 0 10 10" aria-hidden="true"><circle cx="5" cy="5" r="4.2" :fill="paperOf(p.paper)?.outside ?? '#ddd'" /></svg>
      {{ p.name }}
    </button>
    <template v-if="document.pieces.length > 1 && chosen !== document.pieces[0]!.id">
      <button class="plain-button act" @click="ask">rename</button>
      <button class="plain-button act" @click="emit('remove', chosen)">remove</button>
    </template>
    <span class="paper soft">{{ paper?.name }}, {{ paper?.weight }} g/m²</span>
    <span class="spring" />
    <span v-if="slow" class="working" role="status">computing … <ElButton size="small" @click="emit('stop')">Stop</ElButton></span>
    <span v-else-if="stopped" class="working">stopped: the picture is of before <ElButton size="small" @click="emit('again')">Compute</ElButton></span>
    <span v-else-if="trouble" class="trouble" role="alert">{{ trouble }}</span>
  </div>
</template>

<style scoped>
.pieces {
  display: flex;
  align-items: end;
  gap: 4px;
  padding: 0 12px;
  background: var(--chrome-deep);
}
.piece {
  display: flex;
  align-items: center;
  gap: 7px;
  padding: 5px 14px;
  border-radius: 7px 7px 0 0;
}
.piece.chosen {
  background: var(--surface);
  font-weight: 650;
}
.piece svg {
  width: 11px;
  height: 11px;
  stroke: var(--ink-2);
}
.act {
  padding: 5px 6px;
  font-size: var(--size-small);
  color: var(--text-soft);
}
.act:hover {
  color: var(--text);
}
.paper {
  padding: 5px 10px;
  font-size: var(--size-small);
}
.working {
  align-self: center;
  font-size: var(--size-text);
}
.trouble {
  align-self: center;
  color: var(--error);
  font-size: var(--size-text);
}
</style>
