<script setup lang="ts">
/** The pieces of the design as tabs, each with a dot in its paper's colour. */
import { computed } from 'vue'
import type { DesignData } from '@/shared/api/document'
import { t } from '@/shared/words'

export type Shown = 'piece' | 'outside' | 'inside'
const props = defineProps<{ document: DesignData; layered: boolean; trouble: string; slow: boolean; stopped: boolean }>()
const emit = defineEmits<{ stop: []; again: []; add: [] }>()
const chosen = defineModel<string>({ required: true })
const shown = defineModel<Shown>('shown', { required: true })
const listed = defineModel<boolean>('listed', { required: true })
const MOST = 4
const VIEWS = [
  ['piece', t('the piece'), t('The piece in hand by itself, flat')],
  ['outside', t('card outside'), t('The open card with all its layers, from outside')],
  ['inside', t('card inside'), t('The open card with all its layers, from inside')],
] as const
/** The first few and the one in hand; all of them are in the list. */
const tabs = computed(() => {
  const { pieces } = props.document
  const own = pieces.findIndex((p) => p.id === chosen.value)
  return pieces.length <= MOST + 1 || own < MOST ? pieces.slice(0, pieces.length <= MOST + 1 ? MOST + 1 : MOST) : [...pieces.slice(0, MOST - 1), pieces[own]!]
})
const paperOf = (id: string) => props.document.papers.find((p) => p.id === id)
const paper = computed(() => {
  const piece = props.document.pieces.find((p) => p.id === chosen.value)
  return piece && paperOf(piece.paper)
})
</script>

<template>
  <div class="pieces">
    <div v-arrows class="tabs" role="tablist" :aria-label="$t('Pieces')">
      <button
        v-for="p in tabs"
        :key="p.id"
        class="plain-button piece"
        role="tab"
        :aria-selected="p.id === chosen"
        :class="{ chosen: p.id === chosen }"
        :title="p.name"
        @click="chosen = p.id"
      >
        <svg viewBox="0 0 10 10" aria-hidden="true"><circle cx="5" cy="5" r="4.2" :fill="paperOf(p.paper)?.outside ?? '#ddd'" /></svg>
        <span class="called">{{ p.name }}</span>
      </button>
    </div>
    <button class="plain-button act" :aria-pressed="listed" @click="listed = !listed">
      {{ listed ? $t('hide the list') : document.pieces.length > 1 ? $t('all {n} …', { n: document.pieces.length }) : $t('list') }}
    </button>
    <button class="plain-button act add" @click="emit('add')">{{ $t('+ add a piece') }}</button>
    <span v-if="!layered" class="paper soft">{{ paper?.name }}, {{ paper?.weight }} g/m²</span>
    <span class="spring" />
    <span v-if="layered" class="views" role="group" :aria-label="$t('What is shown')">
      <button v-for="[key, label, title] in VIEWS" :key="key" class="plain-button" :title="title" :aria-pressed="shown === key" @click="shown = key">{{ label }}</button>
    </span>
    <span v-if="slow" class="working" role="status">{{ $t('computing …') }} <ElButton size="small" @click="emit('stop')">{{ $t('Stop') }}</ElButton></span>
    <span v-else-if="stopped" class="working">{{ $t('stopped: the picture is of before') }} <ElButton size="small" @click="emit('again')">{{ $t('Compute') }}</ElButton></span>
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
.tabs {
  overflow-x: auto;
  scrollbar-width: none;
  display: flex;
  align-items: end;
  gap: 4px;
  min-width: 0;
}
.piece {
  display: flex;
  align-items: center;
  gap: 7px;
  padding: 5px 14px;
  white-space: nowrap;
  border-radius: 7px 7px 0 0;
}
.piece svg {
  flex: none;
}
.called {
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
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
.act,
.views button,
.paper {
  white-space: nowrap;
}
.act,
.views {
  flex: none;
}
.act {
  padding: 5px 6px;
  font-size: var(--size-small);
  color: var(--text-soft);
}
.act:hover {
  color: var(--text);
}
.add {
  color: var(--accent-strong);
}
.spring {
  flex: 1;
}
.views {
  display: flex;
  align-self: center;
  overflow: hidden;
  border: 1px solid var(--border-strong);
  border-radius: 6px;
}
.views button {
  padding: 2px 10px;
  font-size: var(--size-small);
  background: var(--surface);
}
.views [aria-pressed='true'] {
  background: var(--ink-1);
  color: var(--paper-0);
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
