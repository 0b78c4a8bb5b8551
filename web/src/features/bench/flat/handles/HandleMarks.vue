<script setup lang="ts">
/** The handles of what is in hand, each by the component for its type. */
import type { Component } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import type { Typed } from '../typed'
import type { Viewport } from '../useViewport'
import AroundHandle from './AroundHandle.vue'
import BoxHandle from './BoxHandle.vue'
import type { Figures, Handle } from './handle'
import LineHandle from './LineHandle.vue'
import PickMarks from './PickMarks.vue'

const props = defineProps<{
  handles: readonly Handle[]
  values: unknown
  guides: readonly Schemas['Guide'][]
  within: readonly number[]
  viewport: Viewport
  unit: Unit
  effect?: Schemas['EffectView'] | null
  hovered?: number
}>()
const emit = defineEmits<{
  preview: [figures: Figures]
  commit: [figures: Figures]
  type: [typed: Typed]
  dragged: [place: { x: number; y: number } | null]
  toggle: [candidate: number]
  hover: [candidate: number]
}>()

const MARKS: Record<Handle['shape'], Component> = {
  line: LineHandle,
  box: BoxHandle,
  around: AroundHandle,
  pick: PickMarks,
}
/** What tells a handle from the others of its step, as it is dragged. */
const keyOf = (h: Handle) =>
  h.shape === 'line' ? h.sets.field : h.shape === 'box' ? h.across.field : h.field
</script>

<template>
  <component
    :is="MARKS[h.shape]"
    v-for="h in handles"
    :key="keyOf(h)"
    v-bind="{ ...props, handles: undefined, handle: h }"
    @preview="(v: Figures) => emit('preview', v)"
    @commit="(v: Figures) => emit('commit', v)"
    @type="(t: Typed) => emit('type', t)"
    @dragged="(p: { x: number; y: number } | null) => emit('dragged', p)"
    @toggle="(i: number) => emit('toggle', i)"
    @hover="(i: number) => emit('hover', i)"
  />
</template>
