<script setup lang="ts">
/** The making of the piece, left to right: one picture a step, the stage's name over its run. */
import { computed, nextTick, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, StepData, Unit } from '@/shared/api/document'
import { inSentence, useCatalogue } from '@/shared/catalogue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { formatFigure } from '@/shared/units/figures'
import { called, t } from '@/shared/words'
import SizeThumb from './panes/SizeThumb.vue'
import type { StepAction } from './commands/useStepCommands'
import type { Picture } from './state/useEvaluation'

const props = defineProps<{
  document: DesignData
  steps: readonly StepData[]
  strip: readonly Schemas['StripView'][]
  pictures: ReadonlyMap<string, Picture>
  chosen: string | null
  unit: Unit
  colour: string
}>()
const emit = defineEmits<{
  choose: [step: string | null]
  add: []
  move: [step: string, to: number]
  act: [step: string, action: StepAction]
}>()

const catalogue = useCatalogue()
const row = ref<HTMLElement | null>(null)
const dragged = ref<string | null>(null)
/** Until a dialog that was closed has given the keyboard back. */
const REST_MS = 250

const tiles = computed(() => {
  let last: Picture | undefined
  return props.steps.map((step, index) => {
    const view = props.strip.find((s) => s.step === step.id)
    const own = view ? props.pictures.get(view.key) : undefined
    const before = last
    last = own ?? last
    const kind = catalogue.step(step.kind)
    const stage = kind?.stage ?? ''
    const previous = index ? catalogue.step(props.steps[index - 1]!.kind)?.stage : ''
    const caption = view?.caption
    const figure = caption && typeof caption.value === 'number' ? formatFigure(caption.value, caption.unit, props.unit) : ''
    return {
      step,
      index,
      title: kind?.title ?? step.kind,
      stage: stage === previous ? '' : stage,
      picture: own ?? before,
      problem: view?.problem ?? null,
      caption: view?.problem ? t('passed over') : [caption?.text, figure].filter(Boolean).join(' '),
    }
  })
})

const current = () => row.value?.querySelector<HTMLElement>('[aria-current="step"]')

watch(
  () => props.chosen,
  async () => {
    await nextTick()
    current()?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
    // a step that was added or removed has taken the keyboard with it, or left it where it was asked for
    setTimeout(() => {
      const held = document.activeElement
      const tile = current()
      const astray = held !== tile && held?.matches('.pick, .add') && row.value?.contains(held)
      if (held === document.body || astray) tile?.focus({ preventScroll: true })
    }, REST_MS)
  },
)

function key(event: KeyboardEvent, step: StepData | null, index: number) {
  const to = event.key === 'ArrowRight' ? index + 1 : event.key === 'ArrowLeft' ? index - 1 : null
  if (to !== null && event.altKey && step) {
    event.preventDefault()
    emit('move', step.id, to)
    refocus(step.id)
  } else if (to !== null) {
    event.preventDefault()
    const tile = row.value?.querySelectorAll<HTMLElement>('.pick')[to + 1]
    tile?.focus()
    tile?.click()
  } else if (event.key === 'Delete' && step) {
    emit('act', step.id, 'remove')
  }
}

async function refocus(step: string) {
  await nextTick()
  row.value?.querySelector<HTMLElement>(`[data-step="${step}"]`)?.focus()
}

function drop(index: number) {
  if (dragged.value) emit('move', dragged.value, index)
  dragged.value = null
}
</script>

<template>
  <nav ref="row" class="strip" :aria-label="$t('Build strip')">
    <div class="tile">
      <span class="stage">{{ $t('Size') }}</span>
      <button
        class="plain-button pick"
        :class="{ chosen: chosen === null }"
        :aria-current="chosen === null ? 'step' : undefined"
        @click="emit('choose', null)"
        @keydown="(e) => key(e, null, -1)"
      >
        <span class="picture"><SizeThumb :card="document.card" /></span>
        <span class="title">{{ called(document.card.size.name) }}</span>
        <span class="caption">{{ inSentence(catalogue.way(document.card.folding.kind)?.title ?? '') }}</span>
      </button>
    </div>
    <div
      v-for="tile in tiles"
      :key="tile.step.id"
      class="tile"
      :class="{ staged: tile.stage, over: dragged && dragged !== tile.step.id }"
      @dragover.prevent
      @drop.prevent="drop(tile.index)"
    >
      <span class="stage">{{ tile.stage }}</span>
      <button
        class="plain-button pick"
        draggable="true"
        :data-step="tile.step.id"
        :class="{ chosen: chosen === tile.step.id, off: !tile.step.on, failed: tile.problem }"
        :aria-current="chosen === tile.step.id ? 'step' : undefined"
        :title="tile.problem ? tile.problem.message : `${tile.title}${tile.step.on ? '' : $t(', switched off')}`"
        @click="emit('choose', tile.step.id)"
        @keydown="(e) => key(e, tile.step, tile.index)"
        @dragstart="dragged = tile.step.id"
        @dragend="dragged = null"
      >
        <span class="picture">
          <PathPicture v-if="tile.picture" :path="tile.picture.path" :box="tile.picture.box" :folds="tile.picture.folds" :perforated="tile.picture.perforated" :drawn="tile.picture.drawn" :colour="colour" />
          <span v-if="tile.problem" class="badge error" :aria-label="$t('cannot be applied')">!</span>
          <span v-else-if="!tile.step.on" class="badge" :aria-label="$t('switched off')">{{ $t('off') }}</span>
        </span>
        <span class="title">{{ tile.title }}</span>
        <span class="caption figure" :class="{ failed: tile.problem }">{{ tile.caption }}</span>
      </button>
    </div>
    <div class="tile last">
      <span class="stage" />
      <button class="plain-button add" :title="$t('Add a step (/)')" @click="emit('add')">
        <span class="plus" aria-hidden="true">+</span>
        <span>{{ $t('Add a step') }}</span>
        <kbd>/</kbd>
      </button>
    </div>
  </nav>
</template>

<style scoped>
.caption.failed {
  color: var(--error);
}
.strip {
  display: flex;
  gap: 8px;
  padding: 8px 16px 8px;
  overflow-x: auto;
  /* what is brought into view stands beside the last tile, and not below it */
  scroll-padding: 0 134px 0 20px;
  background: var(--chrome);
  border-top: 1px solid var(--border);
}
.tile {
  flex: none;
  width: 118px;
}
.stage {
  display: block;
  height: 17px;
  font-size: var(--size-figure);
  font-weight: 650;
  color: var(--text-soft);
  white-space: nowrap;
  overflow: visible;
}
.tile.staged {
  border-left: 1px solid var(--border-strong);
  padding-left: 8px;
  width: 127px;
}
.pick {
  display: block;
  width: 118px;
  border-radius: 7px;
}
.picture {
  position: relative;
  display: block;
  height: 76px;
  padding: 5px;
  background: var(--surface);
  border: 1.5px solid var(--border);
  border-radius: 7px;
}
.chosen .picture {
  border-color: var(--accent);
  box-shadow: 0 0 0 1px var(--accent);
}
.off .picture > svg {
  opacity: 0.35;
}
.failed .picture {
  border-color: var(--error);
}
.badge {
  position: absolute;
  right: 4px;
  top: 4px;
  padding: 0 6px;
  border-radius: 8px;
  font-size: var(--size-figure);
  background: var(--paper-3);
}
.badge.error {
  background: var(--error);
  color: #fff;
  font-weight: 700;
}
.title,
.caption {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  line-height: 1.3;
}
.title {
  font-size: var(--size-small);
  font-weight: 550;
  margin-top: 2px;
}
.caption {
  font-size: var(--size-figure);
  color: var(--text-soft);
  min-height: 15px;
}
/* in reach however many steps there are */
.last {
  position: sticky;
  right: -16px;
  width: 130px;
  /* the rest of the gap is for the ring about the tile before it */
  margin: -8px 0 -8px -4px;
  padding: 8px 8px 8px 4px;
  background: var(--chrome);
}
.add {
  display: grid;
  place-items: center;
  align-content: center;
  gap: 1px;
  width: 118px;
  height: 76px;
  border: 1.5px dashed var(--border-strong);
  border-radius: 7px;
  font-size: var(--size-small);
  color: var(--ink-1);
}
.add:hover {
  border-color: var(--accent);
}
.plus {
  font-size: var(--size-title);
  line-height: 1;
}
kbd {
  font: var(--size-figure) var(--figures);
  padding: 0 5px;
  border: 1px solid var(--border-strong);
  border-radius: 3px;
  background: var(--surface);
}
</style>
