<script setup lang="ts">
/** What the machine does with a sheet: its passes in order, played as a line that grows. */
import { computed, ref, toRef, watch } from 'vue'
import { answer, client } from '@/shared/api/client'
import { tellError } from '@/shared/messages'
import { formatTime, pointsOf, wayAt } from './formats'
import PlayBar from './PlayBar.vue'
import type { SetUp } from './types'
import { usePlaying } from './usePlaying'
import { useRun } from './useRun'

const props = defineProps<{ job: number; number: number; revision: number; machine: string }>()
const setups = ref<SetUp[]>([])
const which = ref(0)
const { run, trouble, follow, going } = useRun()

async function load() {
  setups.value = []
  try {
    const found = await follow(
      answer(client.POST('/api/jobs/{number}/passes', { params: { path: { number: props.job } }, body: { sheet: props.number } })),
    )
    if (found) setups.value = (found.result as unknown as { setups: SetUp[] }).setups
  } catch (error) {
    tellError(error)
  }
}
watch([toRef(props, 'number'), toRef(props, 'revision'), toRef(props, 'machine')], load, { immediate: true })
watch(setups, () => (which.value = 0))

const setup = computed(() => setups.value[which.value])
/** Each stroke with the share of time in which it is run, evenly by its length within its pass. */
const strokes = computed(() => {
  let at = 0
  return (setup.value?.passes ?? []).flatMap((pass, number) => {
    const sizes = pass.strokes.map(lengthOf)
    const whole = sizes.reduce((a, b) => a + b, 0) || 1
    const found = pass.strokes.map((places, i) => {
      const from = at
      at += (pass.time_s * sizes[i]!) / whole
      return { places, from, to: at, operation: pass.operation, number, size: sizes[i]!, way: wayAt(places, Math.min(6, sizes[i]! / 2)) }
    })
    return found
  })
})
function lengthOf(flat: readonly number[]): number {
  let size = 0
  for (let i = 2; i + 1 < flat.length; i += 2) size += Math.hypot(flat[i]! - flat[i - 2]!, flat[i + 1]! - flat[i - 1]!)
  return size
}
const end = computed(() => strokes.value.at(-1)?.to ?? 0)
const playing = usePlaying(end)
const shown = computed(() => {
  const t = playing.at.value
  return strokes.value.map((s) => ({ ...s, share: t === 0 || t >= s.to ? 1 : t <= s.from ? 0 : (t - s.from) / (s.to - s.from) }))
})
const now = computed(() => {
  const t = playing.at.value
  const s = t ? strokes.value.find((one) => t < one.to) : undefined
  return s ? setup.value!.passes[s.number]!.tool : ''
})
</script>

<template>
  <div class="passes">
    <div class="picture">
      <p v-if="trouble" class="state" role="alert">{{ trouble }}</p>
      <p v-else-if="going() || !setup" class="state soft" aria-busy="true">{{ run?.said || $t('Ordering the lines …') }}</p>
      <svg v-else :viewBox="`-2 -2 ${setup.width + 4} ${setup.height + 4}`">
        <rect class="paper" :width="setup.width" :height="setup.height" />
        <template v-for="(s, i) in shown" :key="i">
          <polyline v-if="s.share > 0" :class="s.operation" :points="pointsOf(s.places)" pathLength="1" :stroke-dasharray="s.share < 1 ? `${s.share} 2` : undefined" />
          <path v-if="s.share > 0 && s.size > 12" class="way" :class="s.operation" d="M-2.2 -1.8L2 0L-2.2 1.8" :transform="`translate(${s.way.x} ${s.way.y}) rotate(${s.way.turn})`" />
          <circle v-if="s.share > 0 && s.size > 12" class="start" :class="s.operation" :cx="s.places[0]" :cy="s.places[1]" r="1.1" />
        </template>
      </svg>
    </div>
    <aside>
      <ElRadioGroup v-if="setups.length > 1" v-model="which" size="small" :aria-label="$t('Set-up')">
        <ElRadioButton v-for="(s, i) in setups" :key="i" :value="i">{{ s.inside ? $t('Turned over') : $t('As it lies') }}</ElRadioButton>
      </ElRadioGroup>
      <p v-if="setup?.inside" class="soft">{{ $t('Turn the sheet over {turnover} before this set-up: the holes of the first one then lie in the rings.', { turnover: setup.turnover }) }}</p>
      <ol v-if="setup">
        <li v-for="(pass, i) in setup.passes" :key="i">
          <span class="swatch" :class="pass.operation" />
          <b>{{ pass.name }}</b> <span class="soft">{{ pass.tool }}</span>
          <span class="figure">{{ $t('{n} line · {length} mm · {time} | {n} lines · {length} mm · {time}', { n: pass.strokes.length, length: Math.round(pass.length_mm), time: formatTime(pass.time_s) }, pass.strokes.length) }}</span>
        </li>
      </ol>
      <p v-if="setup" class="all"><b>{{ $t('in all') }}</b> <span class="figure">{{ formatTime(end) }}</span></p>
      <p v-if="setup" class="soft">{{ $t('Dots are where a line begins, arrows which way it runs. What lies inside another outline comes before it.') }}</p>
    </aside>
    <PlayBar class="bar" :play="playing" :end="end" :now="now" />
  </div>
</template>

<style scoped>
@import './lines.css';
.passes {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 264px;
  min-height: 0;
}
.bar {
  grid-column: 1 / -1;
}
.picture {
  display: grid;
  min-height: 0;
  padding: 14px;
  background: var(--chrome-deep);
}
.picture svg {
  width: 100%;
  height: 100%;
  min-height: 0;
}
aside {
  padding: 14px;
  overflow: auto;
  border-left: 1px solid var(--border);
  background: var(--surface);
  font-size: var(--size-text);
  display: grid;
  gap: 10px;
  align-content: start;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 10px;
}
li {
  display: grid;
  grid-template-columns: 18px auto 1fr;
  gap: 0 8px;
  align-items: center;
}
li .figure {
  grid-column: 1 / -1;
  font-size: var(--size-small);
  white-space: nowrap;
}
.all {
  display: flex;
  justify-content: space-between;
}
.state {
  place-self: center;
}
</style>
