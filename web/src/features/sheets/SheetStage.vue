<script setup lang="ts">
/** The sheet in hand, large: its pieces are dragged, turned, locked, put on another sheet. */
import { computed, ref, toRef, useTemplateRef, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { t } from '@/shared/words'
import SheetPicture from './SheetPicture.vue'
import type { useJob } from './useJob'
import { useDragging } from './useDragging'
import type { LaidPiece } from './types'

const props = defineProps<{ work: ReturnType<typeof useJob>; number: number; unit: Unit }>()
const emit = defineEmits<{ spoiled: [index: number, card: boolean] }>()
const chosen = ref<number | null>(null)
const number = toRef(props, 'number')
const sheet = computed(() => props.work.sheets.value[props.number])
const pieces = computed(() => sheet.value?.pieces ?? [])
const stage = useTemplateRef<HTMLElement>('stage')
watch(number, () => (chosen.value = null))

function toSheet(event: PointerEvent) {
  const svg = stage.value?.querySelector('svg.sheet') as SVGSVGElement
  const matrix = svg.getScreenCTM()!.inverse()
  return new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
}
const { dragged, nearness, begin, move: drag, end } = useDragging({
  pieces,
  toSheet,
  near: (index, piece) =>
    props.work.near({ sheet: props.number, index, to: props.number, piece, about_middle: false }),
  drop: (index, { x, y }) => props.work.place(props.number, index, (piece) => ({ piece: { ...piece, x, y } })),
})

function press(event: PointerEvent, index: number) {
  chosen.value = index
  begin(event, index)
  stage.value?.focus({ preventScroll: true })
}
const inHand = computed(() => (chosen.value === null ? undefined : pieces.value[chosen.value]))
const same = computed(() =>
  props.work.sheets.value
    .map((s, i) => ({ i, stock: s.stock }))
    .filter((s) => s.stock === sheet.value?.stock && s.i !== props.number),
)

/** What is done to the piece in hand; a locked one is only unlocked. */
function act(wish: (piece: LaidPiece) => Partial<Schemas['Move']>) {
  return chosen.value === null ? Promise.resolve(false) : props.work.place(props.number, chosen.value, wish)
}
const shift = (dx: number, dy: number) => act((p) => ({ piece: { ...p, x: p.x + dx, y: p.y + dy } }))
const turn = (by: number) => act((p) => ({ piece: { ...p, turn: (p.turn + by + 360) % 360 }, about_middle: true }))
const turnOver = () => act((p) => ({ piece: { ...p, flipped: !p.flipped }, about_middle: true }))
const lock = () => act((p) => ({ piece: { ...p, locked: !p.locked } }))
async function toOther(to: number) {
  if (await act(() => ({ to }))) chosen.value = null
}

function key(event: KeyboardEvent) {
  if (!inHand.value || inHand.value.locked === true) {
    if (event.key === 'l') void lock()
    return
  }
  const far = event.shiftKey ? 10 : event.altKey ? 0.1 : 1
  const acts: Record<string, () => unknown> = {
    ArrowLeft: () => shift(-far, 0),
    ArrowRight: () => shift(far, 0),
    ArrowUp: () => shift(0, -far),
    ArrowDown: () => shift(0, far),
    t: () => turn(90),
    T: () => turn(-90),
    ',': () => turn(-1),
    '.': () => turn(1),
    o: turnOver,
    l: lock,
  }
  const chosenAct = acts[event.key]
  if (!chosenAct) return
  event.preventDefault()
  void chosenAct()
}
const said = computed(() => {
  const n = nearness.value
  if (!n) return ''
  if (n.said) return n.said
  return n.away === null ? t('Nothing is near.') : t('{away} from {to}', { away: formatLength(n.away, props.unit), to: n.to })
})
</script>

<template>
  <div class="stage-wrap">
    <div ref="stage" class="stage" tabindex="0" role="group" :aria-label="$t('The sheet; the piece in hand is moved by the arrow keys')" @keydown="key">
      <SheetPicture
        v-if="sheet"
        class="large"
        :sheet="sheet"
        :parts="work.parts.value"
        :dragged="dragged"
        :wrong="nearness !== null && !nearness.allowed"
        :chosen="chosen"
        names
        @press="press"
        @drag="drag"
        @drop="end"
      />
      <output v-if="said" class="near figure" :class="{ wrong: nearness && !nearness.allowed }" aria-live="polite">{{ said }}</output>
    </div>
    <div class="in-hand" role="toolbar" :aria-label="$t('The piece in hand')">
      <template v-if="inHand">
        <b>{{ work.parts.value[inHand.part]?.name }}</b>
        <span class="soft design" :title="work.parts.value[inHand.part]?.design">{{ work.parts.value[inHand.part]?.design }}</span>
        <span class="figure soft">{{ formatLength(inHand.x, unit, false) }}, {{ formatLength(inHand.y, unit) }} · {{ inHand.turn }}°{{ inHand.flipped ? $t(', inside up') : '' }}</span>
        <span class="spring" />
        <ElButton size="small" title="T" :disabled="inHand.locked" @click="turn(90)">{{ $t('Quarter turn') }}</ElButton>
        <ElButton size="small" title="Full stop; a comma turns it back" :disabled="inHand.locked" @click="turn(1)">{{ $t('By 1°') }}</ElButton>
        <ElButton size="small" :title="$t('O: it lies inside up then, or outside up again')" :disabled="inHand.locked" @click="turnOver">{{ $t('Turn over') }}</ElButton>
        <ElButton size="small" title="L" @click="lock">{{ inHand.locked ? $t('Unlock') : $t('Lock') }}</ElButton>
        <ElDropdown trigger="click" @command="(what: string) => emit('spoiled', chosen!, what === 'card')">
          <ElButton size="small" :title="$t('A job of its own for what was spoiled, on an offcut if there is one')">{{ $t('Once more') }}</ElButton>
          <template #dropdown>
            <ElDropdownMenu>
              <ElDropdownItem command="piece">{{ $t('This piece') }}</ElDropdownItem>
              <ElDropdownItem command="card">{{ $t('The whole card') }}</ElDropdownItem>
            </ElDropdownMenu>
          </template>
        </ElDropdown>
        <ElDropdown v-if="same.length" trigger="click" @command="toOther">
          <ElButton size="small" :disabled="inHand.locked">{{ $t('To another sheet') }}</ElButton>
          <template #dropdown>
            <ElDropdownMenu>
              <ElDropdownItem v-for="s in same" :key="s.i" :command="s.i">{{ $t('Sheet {i}', { i: s.i + 1 }) }}</ElDropdownItem>
            </ElDropdownMenu>
          </template>
        </ElDropdown>
      </template>
      <span v-else class="soft">{{ $t('Press a piece to take it in hand: drag it, arrow keys move it by 1 mm (Shift 10, Alt 0.1), T turns it, O turns it over, L locks it.') }}</span>
    </div>
  </div>
</template>

<style scoped>
.stage-wrap {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 0;
}
.stage {
  position: relative;
  display: grid;
  place-items: center;
  min-height: 0;
  padding: 14px;
  background: var(--chrome-deep);
}
.stage:focus-visible {
  outline-offset: -2px;
}
.large {
  width: 100%;
  height: 100%;
}
.large :deep(.piece) {
  cursor: grab;
}
.large :deep(.piece.locked) {
  cursor: default;
}
.near {
  position: absolute;
  left: 50%;
  top: 12px;
  translate: -50%;
  padding: 4px 12px;
  border-radius: var(--radius);
  background: var(--ink-0);
  color: #fff;
  font-size: var(--size-text);
}
.near.wrong {
  background: var(--error);
}
.in-hand {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  padding: 4px 14px;
  border-top: 1px solid var(--border);
  background: var(--surface);
  font-size: var(--size-text);
}
.in-hand b,
.in-hand .figure {
  white-space: nowrap;
}
.in-hand :deep(.el-button) {
  margin-left: 0;
  padding-inline: 8px;
}
.design {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
