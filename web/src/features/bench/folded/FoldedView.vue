<script setup lang="ts">
/** The card folded: turned by pointer and keys, opened and closed with a slider. */
import { onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { FoldedScene } from './scene'

const props = defineProps<{ space: Schemas['SpaceView'] }>()
const canvas = ref<HTMLCanvasElement | null>(null)
const holder = ref<HTMLElement | null>(null)
const scene = shallowRef<FoldedScene | null>(null)
const angle = ref(64)
const trouble = ref('')
let observer: ResizeObserver | null = null

onMounted(async () => {
  const { FoldedScene } = await import('./scene')
  if (!canvas.value || !holder.value) return
  try {
    scene.value = new FoldedScene(canvas.value)
  } catch {
    trouble.value = 'This browser cannot draw the folded view (no WebGL). All else works.'
    return
  }
  observer = new ResizeObserver(([entry]) => {
    if (entry) scene.value?.resize(entry.contentRect.width, entry.contentRect.height)
  })
  observer.observe(holder.value)
  scene.value.setAngle(angle.value)
  scene.value.show(props.space)
})
onBeforeUnmount(() => {
  observer?.disconnect()
  clearTimeout(waiting)
  scene.value?.dispose()
})
// the flat view is drawn first: what is worked on is there
let waiting: ReturnType<typeof setTimeout> | undefined
watch(
  () => props.space,
  () => {
    clearTimeout(waiting)
    waiting = setTimeout(() => scene.value?.show(props.space), 60)
  },
)
watch(angle, (degrees) => scene.value?.setAngle(degrees))

const KEYS: Record<string, [number, number]> = {
  ArrowLeft: [-8, 0],
  ArrowRight: [8, 0],
  ArrowUp: [0, -8],
  ArrowDown: [0, 8],
}
function key(event: KeyboardEvent) {
  const by = KEYS[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  scene.value?.turn(...by)
}
</script>

<template>
  <section class="folded" aria-label="Folded view">
    <div ref="holder" class="holder">
      <canvas
        ref="canvas"
        tabindex="0"
        role="img"
        aria-label="The folded card; arrow keys turn it"
        @keydown="key"
        @dblclick="scene?.reset(space)"
      />
      <p v-if="trouble" class="trouble soft">{{ trouble }}</p>
      <p v-if="!space.faces.length" class="trouble soft">Nothing to fold yet.</p>
    </div>
    <div class="slider">
      <span class="soft">closed</span>
      <ElSlider v-model="angle" :min="0" :max="180" :show-tooltip="false" aria-label="How far it is opened" />
      <span class="figure">{{ angle }}°</span>
    </div>
  </section>
</template>

<style scoped>
.folded {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  background: linear-gradient(var(--paper-3), var(--paper-1));
}
.holder {
  position: relative;
  min-height: 0;
  overflow: hidden;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  cursor: grab;
}
.trouble {
  position: absolute;
  inset: 40% 24px auto;
  text-align: center;
}
.slider {
  display: grid;
  grid-template-columns: auto 1fr 44px;
  gap: 16px;
  align-items: center;
  padding: 0 18px;
  height: 36px;
  font-size: 12.5px;
}
.slider .figure {
  text-align: right;
}
</style>
