<script setup lang="ts">
/** What a handle says: its figures, and what they make of the closed card. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { t } from '@/shared/words'
import type { Viewport } from '../useViewport'

const props = defineProps<{
  /** Where it would be, in pixels. */
  x: number
  y: number
  label: string
  /** The left side of what it belongs to: it stands there where there is no room at the right. */
  left?: number
  viewport: Viewport
  unit: Unit
  effect?: Schemas['EffectView'] | null
  /** Whether its figure can be typed over. */
  typed?: boolean
}>()
const emit = defineEmits<{ type: [place: { x: number; y: number }] }>()

const outcome = computed(() => {
  const e = props.effect
  if (!e) return ''
  const closed = e.closed.map((v) => formatLength(v, props.unit, false)).join(' × ')
  return t('closed {closed}', { closed }) + (e.room === null ? '' : t(', room {room}', { room: formatLength(e.room, props.unit) }))
})
const width = computed(() => Math.max(props.label.length * 7.4, outcome.value.length * 6.9) + 18)
const at = computed(() => {
  const most = props.viewport.view.width - width.value - 4
  const other = props.left === undefined ? 0 : props.left - width.value - 8
  return { x: props.x > most && other >= 28 ? other : Math.min(Math.max(props.x, 28), most), y: Math.max(props.y, 28) }
})
function click() {
  if (props.typed) emit('type', { x: at.value.x + width.value / 2, y: at.value.y + 12 })
}
</script>

<template>
  <g class="bubble" :class="{ typed }" :transform="`translate(${at.x} ${at.y})`" @pointerdown.stop @click="click">
    <rect :width="width" :height="outcome ? 42 : 24" rx="12" />
    <text :x="width / 2" y="16">{{ label }}</text>
    <text v-if="outcome" class="outcome" :class="{ over: effect!.room !== null && effect!.room < 0 }" :x="width / 2" y="34">{{ outcome }}</text>
  </g>
</template>

<style scoped>
rect {
  fill: var(--ink-0);
}
text {
  font: 600 var(--size-small) var(--figures);
  fill: var(--paper-0);
  text-anchor: middle;
  white-space: pre;
}
.bubble {
  pointer-events: none;
}
.typed {
  pointer-events: auto;
  cursor: text;
}
.outcome {
  font-weight: 400;
}
.over {
  fill: #ffc4ae;
  font-weight: 700;
}
</style>
