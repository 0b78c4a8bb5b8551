<script setup lang="ts">
/** How the flat view is looked at: how large, from which side, as lines alone; and its key. */
import { t } from '@/shared/words'
import type { Viewport } from './useViewport'

defineProps<{ viewport: Viewport; inHand: boolean }>()
const bare = defineModel<boolean>('bare', { required: true })
const keyShown = defineModel<boolean>('keyShown', { required: true })
const sheetShown = defineModel<boolean>('sheetShown', { required: true })
/** A folded card from outside, and laid open. */
const SIDES = [
  { label: t('outside'), inside: false, title: t('The outside of the paper (I turns it over)'), path: 'M3 1h8v10H3z' },
  { label: t('inside'), inside: true, title: t('The inside of the paper (I turns it over)'), path: 'M1 2l6 1.5L13 2v8.5L7 11 1 10.5zM7 3.5V11' },
]
const emit = defineEmits<{ whole: []; near: []; turnOver: []; actual: []; zoom: [factor: number] }>()
</script>

<template>
  <div class="tools">
    <div class="group">
      <button :aria-label="$t('Smaller')" :title="$t('Smaller')" @click="emit('zoom', 1 / 1.3)">−</button>
      <button :title="$t('Show the whole piece (F)')" @click="emit('whole')">{{ $t('whole') }}</button>
      <button v-if="inHand" :title="$t('Show what is in hand (Shift+F)')" @click="emit('near')">{{ $t('near') }}</button>
      <button :title="$t('As large as it is, measured by a ruler on the screen')" @click="emit('actual')">{{ $t('actual size') }}</button>
      <button :aria-label="$t('Larger')" :title="$t('Larger')" @click="emit('zoom', 1.3)">+</button>
    </div>
  </div>
  <div class="group looks">
      <span class="sides" role="group" :aria-label="$t('Side that is seen')">
        <button v-for="side in SIDES" :key="side.label" :aria-pressed="viewport.view.inside === side.inside" :title="side.title" @click="viewport.view.inside === side.inside || emit('turnOver')">
          <svg viewBox="0 0 14 12" aria-hidden="true"><path :d="side.path" /></svg>{{ side.label }}
        </button>
      </span>
      <button :aria-pressed="bare" :title="$t('The bare lines that the machine gets (L)')" @click="bare = !bare">{{ $t('lines alone') }}</button>
      <button :aria-pressed="sheetShown" :title="$t('The sheet that the paper comes in')" @click="sheetShown = !sheetShown">{{ $t('sheet') }}</button>
      <button :aria-pressed="keyShown" :title="$t('What the lines mean')" @click="keyShown = !keyShown">{{ $t('key') }}</button>
  </div>
</template>

<style scoped>
.tools {
  position: absolute;
  right: 10px;
  top: 30px;
}
.looks {
  position: absolute;
  left: 34px;
  bottom: 10px;
}
.sides {
  display: flex;
  border-right: 1px solid var(--border-strong);
}
.sides svg {
  width: 13px;
  height: 11px;
  margin-right: 4px;
  vertical-align: -1px;
  fill: none;
  stroke: currentColor;
}
.group {
  display: flex;
  border: 1px solid var(--border-strong);
  border-radius: var(--radius);
  overflow: hidden;
  background: var(--surface);
}
button {
  border: 0;
  background: none;
  padding: 3px 9px;
  cursor: pointer;
  font-size: var(--size-small);
}
button:hover {
  background: var(--chrome-deep);
}
button[aria-pressed='true'] {
  background: var(--accent-pale);
  font-weight: 650;
}
</style>
