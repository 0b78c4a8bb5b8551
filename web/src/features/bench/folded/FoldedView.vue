<script setup lang="ts">
/** The card folded: turned by pointer and keys, folded by poses, a slider, or played through. */
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useIdle, useLocalStorage, type WindowEventName } from '@vueuse/core'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { wantsStillness } from '@/shared/motion'
import { t } from '@/shared/words'
import type { Seen } from '../commands/useExport'
import ClosedView from './ClosedView.vue'
import { anglesAt } from './poses'
import type { FoldedScene } from './scene'
import { usePosture, type Pose } from './usePosture'

const props = defineProps<{
  space: Schemas['SpaceView']
  shut: Schemas['ClosedView'] | null
  unit: Unit
}>()
const emit = defineEmits<{ save: [seen: Seen | Blob] }>()

const canvas = ref<HTMLCanvasElement | null>(null)
const holder = ref<HTMLElement | null>(null)
const scene = shallowRef<FoldedScene | null>(null)
const pose = ref<Pose>('half')
const over = ref(false)
/** Folded away, to leave the room to the step and the readings. */
const away = useLocalStorage('stileblade.bench.folded-away', false)
const opened = ref(0.35)
const playing = ref(false)
const trouble = ref('')
/** mm that layers stand off from each other. */
const apart = ref(0)
watch(apart, (mm) => scene.value?.setApart(mm))
let observer: ResizeObserver | null = null
const DOING: WindowEventName[] = ['pointerdown', 'pointermove', 'keydown', 'wheel']
const { lastActive } = useIdle(undefined, { events: DOING })

const folds = computed(() => props.space.folds.length > 0)
const poses = computed(() => [
  { key: 'half' as const, label: t('half open'), shown: folds.value },
  { key: 'inside' as const, label: t('inside'), shown: folds.value },
  { key: 'closed' as const, label: t('closed'), shown: folds.value },
  { key: 'standing' as const, label: t('standing'), shown: Boolean(props.space.stand) },
  { key: 'envelope' as const, label: t('envelope'), shown: Boolean(props.space.envelope) },
])
const { wanted, wayTo, wayOf, hold, again } = usePosture(() => props.space, pose, opened)

onMounted(async () => {
  const { FoldedScene } = await import('./scene')
  if (!canvas.value || !holder.value) return
  try {
    scene.value = new FoldedScene(canvas.value, () => Date.now() - lastActive.value)
  } catch {
    trouble.value = t('This browser cannot draw the folded view (no WebGL). All else works.')
    return
  }
  observer = new ResizeObserver(([entry]) => {
    if (entry) scene.value?.resize(entry.contentRect.width, entry.contentRect.height)
  })
  observer.observe(holder.value)
  show()
})
onBeforeUnmount(() => {
  observer?.disconnect()
  clearTimeout(waiting)
  scene.value?.dispose()
})

function show() {
  const { posture, place } = wanted()
  const anew = scene.value?.show(props.space, again(posture), place)
  if (anew && pose.value === 'inside') scene.value?.lookFrom(props.space.eye_inside)
}
// the flat view is drawn first: what is worked on is there
let waiting: ReturnType<typeof setTimeout> | undefined
watch(
  () => props.space,
  () => {
    clearTimeout(waiting)
    waiting = setTimeout(show, 60)
  },
)

/** All of the folding in view, from flat to closed. */
const frameAll = () => scene.value?.fit(props.space.sequence)

async function strike(next: Pose) {
  playing.value = false
  over.value = false
  const before = pose.value
  pose.value = next
  const { posture, place } = wanted()
  await scene.value?.moveTo(wayTo(posture), place)
  // looked into until another pose is struck
  if (next === 'inside') scene.value?.lookFrom(props.space.eye_inside)
  else if (before === 'inside') scene.value?.reset()
}
function slide(value: number) {
  playing.value = false
  over.value = false
  const moved = pose.value === 'standing' || pose.value === 'envelope'
  if (pose.value !== 'free' && !moved) frameAll()
  pose.value = 'free'
  const posture = { opened: value, standing: false }
  if (moved) return void scene.value?.moveTo(wayTo(posture), 'hand').then(frameAll)
  scene.value?.setAngles(hold(posture))
}
async function play() {
  if (playing.value) {
    playing.value = false
    scene.value?.stop()
    return
  }
  over.value = false
  if (pose.value === 'standing' || pose.value === 'envelope') await scene.value?.moveTo(wayTo({ opened: 1, standing: false }), 'hand')
  pose.value = 'free'
  frameAll()
  playing.value = true
  // from flat to closed, and open again
  const path = (share: number) => Math.abs(1 - 2 * share)
  const stages = Math.max(props.space.sequence.length - 1, 1)
  await scene.value?.play(
    (share) => anglesAt(props.space.sequence, path(share)),
    Math.min(2200 + 1400 * stages, LONGEST),
    (share) => void hold({ opened: path(share), standing: false }),
  )
  playing.value = false
}

/** A flap, a door, a panel opened or shut by itself: by pointing at it, or by its fold's number. */
async function turnFold(fold: number | null) {
  if (fold === null || fold >= props.space.folds.length || pose.value === 'envelope') return
  playing.value = false
  over.value = false
  if (pose.value === 'standing') await scene.value?.moveTo(wayTo({ opened: opened.value, standing: false }), 'hand')
  if (pose.value !== 'free') frameAll()
  pose.value = 'free'
  await scene.value?.play(wayOf(fold), wantsStillness() ? 0 : ONE_MS)
}
const STILL_PX = 4
const ONE_MS = 450
let pressed = { x: 0, y: 0 }
const press = (event: PointerEvent) => (pressed = { x: event.clientX, y: event.clientY })
function release(event: PointerEvent) {
  if (event.button !== 0 || Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > STILL_PX) return
  const frame = canvas.value!.getBoundingClientRect()
  void turnFold(scene.value?.foldAt(event.clientX - frame.left, event.clientY - frame.top) ?? null)
}

const PICTURE = 4000
/** ms: a folding of many stages is played no slower. */
const LONGEST = 8000
async function savePicture(kind: string) {
  if (!scene.value) return
  if (kind === 'svg') return emit('save', scene.value.seen())
  const made = await scene.value.picture(PICTURE)
  if (made) emit('save', made)
}

const KEYS: Record<string, [number, number]> = {
  ArrowLeft: [-8, 0],
  ArrowRight: [8, 0],
  ArrowUp: [0, -8],
  ArrowDown: [0, 8],
}
function key(event: KeyboardEvent) {
  if (event.key === ' ') {
    event.preventDefault()
    void play()
    return
  }
  if (/^[1-9]$/.test(event.key)) return void turnFold(Number(event.key) - 1)
  const by = KEYS[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  scene.value?.turn(...by)
}
</script>

<template>
  <section class="folded" :class="{ away }" :aria-label="$t('Folded view')">
    <div v-if="space.faces.length" v-arrows class="poses" role="toolbar" :aria-label="$t('Poses')">
      <template v-for="p in poses" :key="p.key">
        <button v-if="p.shown" class="plain-button" :aria-pressed="!over && pose === p.key" @click="strike(p.key)">{{ p.label }}</button>
      </template>
      <button v-if="shut" class="plain-button" :aria-pressed="over" :title="$t('The closed card from its front, over its envelope')" @click="over = !over">{{ $t('front') }}</button>
      <button v-if="away" class="plain-button show" @click="away = false">{{ $t('show the folded card') }}</button>
    </div>
    <div ref="holder" class="holder">
      <canvas
        ref="canvas"
        tabindex="0"
        role="img"
        :aria-label="$t('The folded card; arrow keys turn it, space plays the folding, figures open and shut one fold')"
        :title="$t('Drag it to turn it; press a panel, flap or door to open or shut it')"
        @keydown="key"
        @pointerdown="press"
        @pointerup="release"
        @dblclick="scene?.reset()"
      />
      <ClosedView v-if="over && shut" class="over" :shut="shut" :unit="unit" />
      <p v-if="trouble" class="trouble soft">{{ trouble }}</p>
      <p v-if="!space.faces.length" class="trouble soft">{{ $t('Nothing to fold yet.') }}</p>
    </div>
    <div class="slider">
      <button class="plain-button play" :disabled="!folds" :aria-label="playing ? $t('Stop') : $t('Play the folding')" :title="playing ? $t('Stop') : $t('Play the folding')" @click="play">
        <svg viewBox="0 0 16 16" aria-hidden="true"><path :d="playing ? 'M3 3h10v10H3z' : 'M3 2l11 6-11 6z'" /></svg>
      </button>
      <span class="soft">{{ $t('closed') }}</span>
      <ElSlider
        :model-value="opened"
        :min="0"
        :max="1"
        :step="0.005"
        :show-tooltip="false"
        :disabled="!folds"
        :aria-label="$t('How far it is opened')"
        @input="(v: number | number[]) => slide(Number(v))"
      />
      <span class="soft">{{ $t('flat') }}</span>
      <label v-if="space.layers.length" class="apart" :title="$t('Layers stand off from each other, in their order')">
        <span class="soft">{{ $t('apart') }}</span>
        <input v-model.number="apart" type="range" min="0" max="20" step="0.5" :aria-label="$t('Taken apart')" />
      </label>
      <ElDropdown v-if="scene && space.faces.length" trigger="click" placement="top-end" @command="savePicture">
        <button class="plain-button picture" :title="$t('A picture of the card as it is seen here')">{{ $t('picture') }}</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem command="png">{{ $t('PNG, 4,000 pixels') }}</ElDropdownItem>
            <ElDropdownItem command="svg">{{ $t('SVG') }}</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <button class="plain-button picture" :title="$t('Fold this away: more room for the step and the readings')" @click="away = true">{{ $t('hide') }}</button>
    </div>
  </section>
</template>

<style scoped src="./folded.css"></style>
