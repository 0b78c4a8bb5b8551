<script setup lang="ts">
import { inSentence } from '@/shared/catalogue'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { ElDropdown } from 'element-plus'
import type { Schemas } from '@/shared/api/client'
import { checksInWords } from '@/shared/checks'
import { useNear } from '@/shared/near'
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import type { Unit } from '@/shared/api/document'
import { formatMeasures } from '@/shared/units/figures'
import { called, t } from '@/shared/words'

const props = defineProps<{ entry: Schemas['DesignEntry']; chosen: boolean }>()
const emit = defineEmits<{ act: [action: string]; choose: [] }>()

const actions = computed(() =>
  props.entry.binned
    ? [
        ['restore', t('Restore')],
        ['delete', t('Delete for good')],
      ]
    : [
        [props.entry.template ? 'use' : 'open', props.entry.template ? t('Start a card from it') : t('Open')],
        ...(props.entry.template ? [['open', t('Edit the template')]] : []),
        ...(props.entry.template ? [] : [['sheets', t('Lay out on sheets')]]),
        ['rename', t('Rename')],
        ['folder', t('Into a folder …')],
        ['copy', t('Duplicate')],
        props.entry.template ? ['design', t('Make it an ordinary design')] : ['template', t('Make a template of it')],
        ['bin', t('To the bin')],
      ],
)
const checks = computed(() => {
  const s = props.entry.summary
  if (s.problem) return { kind: 'error', mark: '✕', text: t('cannot be read') }
  const text = checksInWords(s)
  if (s.errors) return { kind: 'error', mark: '✕', text }
  if (s.warnings) return { kind: 'warning', mark: '△', text }
  return s.notes ? { kind: 'note', mark: '○', text } : { kind: 'good', mark: '✓', text }
})
const closed = computed(() =>
  formatMeasures(props.entry.summary.closed, 'mm', props.entry.summary.units as Unit),
)
const tile = useTemplateRef<HTMLElement>('tile')
const near = useNear(tile)
/** The menu is made when it is first opened: hundreds of them would hold the page up. */
const menu = ref(false)
const dropdown = useTemplateRef<InstanceType<typeof ElDropdown>>('dropdown')
async function openMenu() {
  menu.value = true
  await nextTick()
  tile.value?.querySelector<HTMLElement>('.more')?.focus()
  dropdown.value?.handleOpen()
}
/** What a press on the tile does; in the bin it asks first. */
const first = computed(() => (props.entry.binned ? 'look' : actions.value[0]![0]!))
</script>

<template>
  <article ref="tile" class="tile" :class="{ chosen }">
    <input type="checkbox" class="choice" :checked="chosen" :aria-label="$t('Choose {name}', { name: entry.name })" @change="emit('choose')" />
    <button class="plain-button view" :aria-label="`${actions[0]![1]}: ${entry.name}`" @click="emit('act', first)">
      <FoldedPicture v-if="near && entry.summary.picture" :picture="entry.summary.picture" />
    </button>
    <span v-if="!entry.summary.picture" class="instead soft">{{ entry.summary.problem || (entry.waiting ? $t('being folded …') : $t('nothing built yet')) }}</span>
    <div class="text">
      <button class="plain-button name" :title="entry.name" tabindex="-1" @click="emit('act', first)">
        {{ entry.name }}
      </button>
      <button v-if="!menu" class="plain-button more" :aria-label="$t('Actions for {name}', { name: entry.name })" aria-haspopup="menu" aria-expanded="false" @click="openMenu">···</button>
      <ElDropdown v-else ref="dropdown" trigger="click" @command="(a: string) => emit('act', a)">
        <button class="plain-button more" :aria-label="$t('Actions for {name}', { name: entry.name })">···</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem v-for="[key, label] in actions" :key="key" :command="key">{{ label }}</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <span class="size soft">
        {{ called(entry.summary.size) }} {{ inSentence(entry.summary.way) }}
      </span>
      <span class="foot">
        <span class="closed figure" :title="$t('Closed size')">{{ closed }}</span>
        <span class="checks" :class="checks.kind"><span aria-hidden="true">{{ checks.mark }}</span> {{ checks.text }}</span>
      </span>
    </div>
  </article>
</template>

<style scoped>
.tile {
  position: relative;
  content-visibility: auto;
  contain-intrinsic-size: auto 271px;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 10px;
  overflow: hidden;
}
.tile:hover {
  border-color: var(--border-strong);
}
.tile.chosen {
  border-color: var(--accent);
  box-shadow: 0 0 0 1px var(--accent);
}
.choice {
  position: absolute;
  left: 8px;
  top: 8px;
  z-index: 1;
  width: 24px;
  height: 24px;
  margin: 0;
  opacity: 0;
  accent-color: var(--accent);
}
.tile:hover .choice,
.choice:focus-visible,
.choice:checked,
.choosing .choice {
  opacity: 1;
}
@media (hover: none) {
  .choice {
    opacity: 1;
  }
}
.view {
  display: grid;
  place-items: center;
  width: 100%;
  height: 176px;
  padding: 16px;
  background: linear-gradient(var(--paper-2), var(--paper-1));
}
.instead {
  position: absolute;
  inset: 0 16px auto;
  height: 176px;
  display: grid;
  place-items: center;
  text-align: center;
  pointer-events: none;
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
.text > .more,
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
.foot {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 8px;
}
.closed {
  white-space: nowrap;
}
.checks {
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
