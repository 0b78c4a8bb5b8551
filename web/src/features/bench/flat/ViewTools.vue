<script setup lang="ts">
/** How the flat view is looked at: how large, from which side, as lines alone; and its key. */
import type { Viewport } from './useViewport'

defineProps<{ viewport: Viewport; inHand: boolean }>()
const bare = defineModel<boolean>('bare', { required: true })
const keyShown = defineModel<boolean>('keyShown', { required: true })
const sheetShown = defineModel<boolean>('sheetShown', { required: true })
const emit = defineEmits<{ whole: []; near: []; turnOver: []; actual: []; zoom: [factor: number] }>()
</script>

<template>
  <div class="tools">
    <div class="group">
      <button aria-label="Smaller" title="Smaller" @click="emit('zoom', 1 / 1.3)">−</button>
      <button title="Show the whole piece (F)" @click="emit('whole')">whole</button>
      <button v-if="inHand" title="Show what is in hand (Shift+F)" @click="emit('near')">near</button>
      <button title="As large as it is, measured by a ruler on the screen" @click="emit('actual')">actual size</button>
      <button aria-label="Larger" title="Larger" @click="emit('zoom', 1.3)">+</button>
    </div>
  </div>
  <div class="group looks">
      <button :aria-pressed="viewport.view.inside" title="Turn the sheet over (I)" @click="emit('turnOver')">
        {{ viewport.view.inside ? 'inside' : 'outside' }}
      </button>
      <button :aria-pressed="bare" title="The bare lines that the machine gets (L)" @click="bare = !bare">lines alone</button>
      <button :aria-pressed="sheetShown" title="The sheet that the paper comes in" @click="sheetShown = !sheetShown">sheet</button>
      <button :aria-pressed="keyShown" title="What the lines mean" @click="keyShown = !keyShown">key</button>
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
