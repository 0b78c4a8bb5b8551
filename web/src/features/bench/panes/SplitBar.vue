<script setup lang="ts">
/**
 * Between two panes: dragged, or moved by the arrow keys, it makes the one above (or, of the figures, the one
 * below) higher; a double click gives it back its own height.
 */
import { computed, ref } from 'vue'
import { usePaneSizes, type Sized } from './paneSizes'

const props = defineProps<{ sizes: Sized; label: string }>()
const { heights, set, reset } = usePaneSizes()
const bar = ref<HTMLElement | null>(null)
/** The pane grows as the bar goes down, or as it goes up. */
const sign = computed(() => (props.sizes === 'folded' ? 1 : -1))
const STEP_PX = 16
let from = { y: 0, height: 0 }

const side = () => bar.value!.closest<HTMLElement>('.right')!
const pane = () => side().querySelector<HTMLElement>(`:scope > .${props.sizes}`)!
const grow = (height: number) => set(props.sizes, height, side().clientHeight)

function down(event: PointerEvent) {
  if (event.button !== 0) return
  from = { y: event.clientY, height: pane().clientHeight }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent) {
  if ((event.currentTarget as Element).hasPointerCapture(event.pointerId)) grow(from.height + (event.clientY - from.y) * sign.value)
}
function key(event: KeyboardEvent) {
  const way = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
  if (event.key === 'Home') reset(props.sizes)
  else if (way) grow(pane().clientHeight + way * sign.value * STEP_PX)
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div
    ref="bar"
    class="split"
    role="separator"
    tabindex="0"
    aria-orientation="horizontal"
    :aria-label="label"
    :aria-valuenow="heights[sizes] ?? 0"
    :title="$t('{label}: drag it; a double click gives back what it was', { label })"
    @pointerdown="down"
    @pointermove="move"
    @keydown="key"
    @dblclick="reset(sizes)"
  />
</template>

<style scoped>
.split {
  position: absolute;
  z-index: 2;
  left: 0;
  right: 0;
  top: -4px;
  height: 8px;
  cursor: ns-resize;
  touch-action: none;
}
.split:hover,
.split:focus-visible {
  background: linear-gradient(transparent 3px, var(--accent) 3px 5px, transparent 5px);
}
</style>
