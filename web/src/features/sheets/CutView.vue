<script setup lang="ts">
/** A sheet's file sent to the cutter, under conditions; or any file that is let go over the page, compared with the sheet. */
import { computed, reactive, ref, toRef, watch } from 'vue'
import { watchDebounced } from '@vueuse/core'
import { answer, client, sendFile, type Schemas } from '@/shared/api/client'
import { tellError } from '@/shared/messages'
import { decimal, t } from '@/shared/words'
import { DropHint, useFileDrop } from '@/features/reading'
import CutStage from './CutStage.vue'
import type { CutResult, RunView } from './types'
import { useRun } from './useRun'

const props = defineProps<{ job: number; number: number; revision: number; machine: string; turnedOver: boolean }>()
/** The second set-up, where there is one. */
const inside = ref(false)
type Language = Schemas['CutWish']['format']
const format = ref<NonNullable<Language>>('hpgl')
const conditions = reactive({ askew_deg: 0, stretch: 0, worn: 0, trail: 0, seed: 1 })
const result = ref<CutResult | null>(null)
const { run, trouble, follow, stop, going } = useRun()
const LANGUAGES = [
  ['hpgl', t('plotter language')],
  ['gcode', 'G-code'],
  ['svg', 'SVG'],
  ['dxf', 'DXF'],
] as const

let last: number | null = null
/** The file from elsewhere that is shown in place of the sheet's own. */
const dropped = ref<File | null>(null)
const { over } = useFileDrop((file) => ((dropped.value = file), void send(true)))

const turned = () => inside.value && props.turnedOver
const sendOwn = () =>
  answer(
    client.POST('/api/jobs/{number}/cut', {
      params: { path: { number: props.job } },
      body: { sheet: props.number, inside: turned(), format: format.value, conditions: { ...conditions }, of_run: last },
    }),
  )
const sendDropped = (file: File) =>
  sendFile<RunView>('/api/cut-file', file, { machine: props.machine, job: String(props.job), sheet: String(props.number), inside: String(turned()) })
function backToOwn() {
  dropped.value = null
  void send(true)
}

/** Under other conditions the file that was sent is cut again; else it is written anew. */
async function send(anew: boolean) {
  if (anew) last = null
  try {
    const found = await follow(dropped.value && anew ? sendDropped(dropped.value) : sendOwn())
    if (!found) return
    last = found.id
    result.value = found.result as unknown as CutResult
  } catch (error) {
    tellError(error)
  }
}
watch([toRef(props, 'number'), toRef(props, 'revision'), toRef(props, 'machine'), format, inside], () => ((result.value = null), send(true)), { immediate: true })
watchDebounced(conditions, () => send(false), { debounce: 350 })
const upset = computed(() => Boolean(conditions.askew_deg || conditions.stretch || conditions.worn || conditions.trail))
const calm = () => Object.assign(conditions, { askew_deg: 0, stretch: 0, worn: 0, trail: 0 })
</script>

<template>
  <div class="cut">
    <p v-if="trouble" class="state" role="alert">{{ trouble }} <ElButton v-if="dropped" size="small" @click="backToOwn">{{ $t('Back to its own file') }}</ElButton></p>
    <p v-else-if="!result" class="state soft" aria-busy="true">
      {{ $t('The cutter reads what was sent: {said} …', { said: run?.said || $t('waiting') }) }} <span v-if="run?.share" class="figure">{{ Math.round(100 * run.share) }} %</span>
      <ElButton v-if="going()" size="small" @click="stop">{{ $t('Stop') }}</ElButton>
    </p>
    <CutStage v-else :result="result" meant :stale="going()">
      <ElRadioGroup v-if="turnedOver" v-model="inside" size="small" :aria-label="$t('Set-up')">
        <ElRadioButton :value="false">{{ $t('As it lies') }}</ElRadioButton>
        <ElRadioButton :value="true">{{ $t('Turned over') }}</ElRadioButton>
      </ElRadioGroup>
      <p v-if="dropped" class="elsewhere"><span>{{ $t('From elsewhere: {name}', { name: dropped.name }) }}</span> <ElButton size="small" @click="backToOwn">{{ $t('Back to its own file') }}</ElButton></p>
      <label v-else class="choice">{{ $t('Sent as') }}
        <ElSelect v-model="format" size="small" :aria-label="$t('Sent as')">
          <ElOption v-for="[value, label] in LANGUAGES" :key="value" :value="value" :label="label" />
        </ElSelect>
      </label>
      <details :open="upset">
        <summary>{{ $t('How it would turn out, if …') }}</summary>
        <label>{{ $t('the sheet is askew by') }} <span class="figure">{{ decimal(conditions.askew_deg) }}°</span><ElSlider v-model="conditions.askew_deg" :min="-2" :max="2" :step="0.1" :show-tooltip="false" :aria-label="$t('Askew')" /></label>
        <label>{{ $t('the paper stretches by') }} <span class="figure">{{ decimal((conditions.stretch * 100).toFixed(2)) }} %</span><ElSlider v-model="conditions.stretch" :min="0" :max="0.005" :step="0.0005" :show-tooltip="false" :aria-label="$t('Stretched')" /></label>
        <label>{{ $t('the blade fails for') }} <span class="figure">{{ $t('{worn} mm in 50', { worn: decimal(conditions.worn) }) }}</span><ElSlider v-model="conditions.worn" :min="0" :max="3" :step="0.1" :show-tooltip="false" :aria-label="$t('Worn')" /></label>
        <label>{{ $t('the tip trails by') }} <span class="figure">{{ decimal(conditions.trail) }} mm</span><ElSlider v-model="conditions.trail" :min="0" :max="1" :step="0.05" :show-tooltip="false" :aria-label="$t('Trail')" /></label>
        <ElButton v-if="upset" size="small" @click="calm">{{ $t('As it should be') }}</ElButton>
      </details>
    </CutStage>
    <DropHint :over="over" :text="$t('Let go to send the file to the cutter')" />
  </div>
</template>

<style scoped>
.cut {
  display: grid;
  min-height: 0;
}
.cut > :deep(.cut-stage) {
  height: 100%;
}
.state {
  place-self: center;
}
.choice {
  display: grid;
  grid-template-columns: 1fr 150px;
  align-items: center;
  font-size: var(--size-text);
}
.elsewhere {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  font-size: var(--size-text);
  overflow-wrap: anywhere;
}
details {
  font-size: var(--size-text);
}
summary {
  cursor: pointer;
  font-weight: 600;
  padding: 2px 0;
}
details label {
  display: block;
  padding: 2px 8px;
}
</style>
