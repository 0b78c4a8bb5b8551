<script setup lang="ts">
/** What a card starts with: a plain blank, or a figure. */
import LayersPicture from '@/shared/components/LayersPicture.vue'
import type { PickedOutline } from '@/features/outlines'

defineProps<{ picked: PickedOutline | null }>()
const start = defineModel<'plain' | 'shaped'>({ required: true })
const emit = defineEmits<{ pick: [] }>()
</script>

<template>
  <div class="starts" role="radiogroup">
    <button class="plain-button start" role="radio" :aria-checked="start === 'plain'" :class="{ chosen: start === 'plain' }" @click="start = 'plain'">
      <svg viewBox="0 0 64 48" aria-hidden="true">
        <path class="inside" d="M6 8h52v32H6z" /><path class="fold" d="M32 8v32" />
      </svg>
      <span><strong>A plain blank</strong><br /><span class="soft">its panels and folds</span></span>
    </button>
    <button class="plain-button start" role="radio" :aria-checked="start === 'shaped'" :class="{ chosen: start === 'shaped' }" @click="emit('pick')">
      <svg v-if="!picked" viewBox="0 0 64 48" aria-hidden="true">
        <path class="inside" d="M12 34C8 18 22 8 32 20 42 8 56 18 52 34 46 44 18 44 12 34z" />
      </svg>
      <span v-else class="picked"><LayersPicture :layers="picked.picture.layers" :box="picked.picture.box" /></span>
      <span>
        <strong>A figure</strong><br />
        <span class="soft">{{ picked ? `${picked.title}; choose another` : 'from the shelf or a file' }}</span>
      </span>
    </button>
  </div>
</template>

<style scoped>
.starts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.start {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  padding: 8px 10px;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-text);
  line-height: 1.3;
  overflow-wrap: anywhere;
}
.start .soft {
  font-size: var(--size-small);
}
.start svg {
  width: 48px;
  height: 40px;
}
.start.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
  background: var(--accent-pale);
}
.inside {
  fill: var(--paper-2);
  stroke: var(--ink-1);
}
.picked {
  width: 48px;
  height: 48px;
}
.fold {
  stroke: var(--line-fold);
  stroke-dasharray: 5 2 1 2;
}
</style>
