<script setup lang="ts">
import { inSentence } from '@/shared/catalogue'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { checksInWords } from '@/shared/checks'
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import type { Unit } from '@/shared/api/document'
import { formatMeasures } from '@/shared/units/figures'

const props = defineProps<{ entry: Schemas['DesignEntry'] }>()
const emit = defineEmits<{ act: [action: string] }>()

const actions = computed(() =>
  props.entry.binned
    ? [
        ['restore', 'Restore'],
        ['delete', 'Delete for good'],
      ]
    : [
        [props.entry.template ? 'use' : 'open', props.entry.template ? 'Start a card from it' : 'Open'],
        ...(props.entry.template ? [['open', 'Edit the template']] : []),
        ...(props.entry.template ? [] : [['sheets', 'Lay out on sheets']]),
        ['rename', 'Rename'],
        ['copy', 'Duplicate'],
        props.entry.template ? ['design', 'Make it an ordinary design'] : ['template', 'Make a template of it'],
        ['bin', 'To the bin'],
      ],
)
const checks = computed(() => {
  const s = props.entry.summary
  if (s.problem) return { kind: 'error', mark: '✕', text: 'cannot be read' }
  const text = checksInWords(s)
  if (s.errors) return { kind: 'error', mark: '✕', text }
  if (s.warnings) return { kind: 'warning', mark: '△', text }
  return s.notes ? { kind: 'note', mark: '○', text } : { kind: 'good', mark: '✓', text }
})
const closed = computed(() =>
  formatMeasures(props.entry.summary.closed, 'mm', props.entry.summary.units as Unit),
)
/** What a press on the tile does; in the bin it asks first. */
const first = computed(() => (props.entry.binned ? 'look' : actions.value[0]![0]!))
</script>

<template>
  <article class="tile">
    <button class="plain-button view" :aria-label="`${actions[0]![1]}: ${entry.name}`" @click="emit('act', first)">
      <FoldedPicture v-if="entry.summary.picture" :picture="entry.summary.picture" />
      <span v-else class="soft">{{ entry.summary.problem || (entry.waiting ? 'being folded …' : 'nothing built yet') }}</span>
    </button>
    <div class="text">
      <button class="plain-button name" :title="entry.name" tabindex="-1" @click="emit('act', first)">
        {{ entry.name }}
      </button>
      <ElDropdown trigger="click" @command="(a: string) => emit('act', a)">
        <button class="plain-button more" :aria-label="`Actions for ${entry.name}`">···</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem v-for="[key, label] in actions" :key="key" :command="key">{{ label }}</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <span class="size soft">
        {{ entry.summary.size }} {{ inSentence(entry.summary.way) }}
      </span>
      <span class="closed figure" title="Closed size">{{ closed }}</span>
      <span class="checks" :class="checks.kind"><span aria-hidden="true">{{ checks.mark }}</span> {{ checks.text }}</span>
    </div>
  </article>
</template>

<style scoped>
.tile {
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 10px;
  overflow: hidden;
}
.tile:hover {
  border-color: var(--border-strong);
}
.view {
  display: grid;
  place-items: center;
  width: 100%;
  height: 176px;
  padding: 16px;
  background: linear-gradient(var(--paper-2), var(--paper-1));
}
.view :deep(svg) {
  height: 144px;
}
.text {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 1px 8px;
  padding: 10px 14px 12px;
}
.text :deep(.el-dropdown) {
  position: absolute;
  right: 10px;
  top: 10px;
}
.name {
  grid-column: 1 / -1;
  margin-right: 30px;
  font-weight: 650;
  font-size: var(--size-heading);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.more {
  font-weight: 800;
  letter-spacing: 1px;
  padding: 0 6px;
  border-radius: 4px;
}
.more:hover {
  background: var(--chrome-deep);
}
.size,
.closed {
  font-size: var(--size-small);
}
.size {
  grid-column: 1 / -1;
}
.closed {
  grid-row: 3;
  grid-column: 1;
}
.checks {
  grid-row: 3;
  grid-column: 2;
  font-size: var(--size-small);
  font-weight: 550;
  white-space: nowrap;
}
.error {
  color: var(--error);
}
.warning {
  color: var(--warning);
}
.note {
  color: var(--note);
}
.good {
  color: var(--good);
}
</style>
