<script setup lang="ts">
/** The bare lines that the machine gets. Each can be picked: its length, and what step made it. */
import { computed, ref, watch } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData, Unit } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { formatLength } from '@/shared/units/lengths'
import { t } from '@/shared/words'
import type { Viewport } from './useViewport'

const props = defineProps<{ document: DesignData; piece: string; viewport: Viewport; unit: Unit }>()
const emit = defineEmits<{ told: [text: string]; choose: [step: string] }>()

type Cut = Schemas['CutView']
const WORDS: Record<string, string> = {
  score: t('scored'),
  perforate: t('perforated'),
  prick: t('pricked'),
  draw: t('drawn'),
  'cut-inner': t('cut, inner'),
  'cut-outer': t('cut, outer'),
}
const cuts = ref<Cut[]>([])
const picked = ref(-1)

watch(
  () => [props.document, props.piece] as const,
  async ([sent, piece]) => {
    try {
      const found = await answer(client.POST('/api/cuts', { body: { document: sent, piece } }))
      if (sent === props.document) cuts.value = [...found]
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      cuts.value = []
      emit('told', error.text)
    }
  },
  { immediate: true },
)
const say = (c: Cut) => t('{line}, {length}, by {step}', { line: WORDS[c.operation], length: formatLength(c.length, props.unit), step: c.made_by })
const summary = computed(() => {
  const total = new Map<string, { n: number; mm: number }>()
  for (const c of cuts.value) {
    const { n, mm } = total.get(c.operation) ?? { n: 0, mm: 0 }
    total.set(c.operation, { n: n + 1, mm: mm + c.length })
  }
  return [...total].map(([o, { n, mm }]) => `${WORDS[o]} ${n} (${formatLength(mm, props.unit)})`).join(' · ')
})
watch([summary, picked], () => {
  const one = cuts.value[picked.value]
  emit('told', one ? say(one) : summary.value)
}, { immediate: true })
function pick(index: number) {
  picked.value = picked.value === index ? -1 : index
}
</script>

<template>
  <g class="bare" :transform="viewport.transform.value">
    <g
      v-for="(c, i) in cuts"
      :key="i"
      class="cut"
      :class="[c.operation, { picked: i === picked }]"
      role="button"
      tabindex="0"
      :aria-label="say(c)"
      @pointerdown.stop
      @click="pick(i)"
      @dblclick="c.step && emit('choose', c.step)"
      @keydown.enter.prevent="pick(i)"
    >
      <path class="reach" :d="c.path" />
      <path class="seen" :d="c.path" />
      <title>{{ say(c) }}</title>
    </g>
  </g>
</template>

<style scoped>
path {
  fill: none;
  vector-effect: non-scaling-stroke;
}
.reach {
  stroke: transparent;
  stroke-width: 12px;
}
.seen {
  stroke: var(--line-cut);
  stroke-width: 1.4px;
}
.cut {
  cursor: pointer;
  outline: none;
}
.score .seen,
.perforate .seen {
  stroke: var(--line-fold);
}
.draw .seen {
  stroke: var(--line-draw);
}
.cut:hover .seen,
.cut:focus-visible .seen {
  stroke-width: 3px;
}
.picked .seen {
  stroke: var(--accent);
  stroke-width: 3.4px;
}
</style>
