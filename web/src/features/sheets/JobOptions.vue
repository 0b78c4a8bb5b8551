<script setup lang="ts">
/** How pieces lie: machine, gap, edge, formats, turns, bridges, offcuts. */
import { computed, onMounted, ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import LengthInput from '@/shared/components/LengthInput.vue'
import NumberInput from '@/shared/components/NumberInput.vue'
import { tell, tellError } from '@/shared/messages'
import { t } from '@/shared/words'
import { FORMATS, formatName, parseFormat } from './formats'
import type { Job } from './types'

const props = defineProps<{ job: Job; unit: Unit }>()
const emit = defineEmits<{ change: [change: Schemas['JobChange']] }>()
const machines = ref<readonly Schemas['MachineEntry'][]>([])
const offcuts = ref<readonly Schemas['OffcutView'][]>([])
onMounted(async () => {
  try {
    machines.value = await answer(client.GET('/api/machines'))
    offcuts.value = await answer(client.GET('/api/offcuts'))
  } catch (error) {
    tellError(error)
  }
})
const picker = ref<HTMLInputElement | null>(null)
const isOwn = computed(() => machines.value.some((m) => m.own && m.name === props.job.machine))
/** What a file says; null where it is no JSON. */
async function parsed(file: File): Promise<Schemas['Machine'] | null> {
  try {
    return JSON.parse(await file.text()) as Schemas['Machine']
  } catch {
    return null
  }
}
async function addMachine(event: Event) {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  if (!file) return
  try {
    const body = await parsed(file)
    if (!body) throw ApiError.of(t('“{name}” is no JSON.', { name: file.name }))
    const kept = await answer(client.POST('/api/machines', { body }))
    machines.value = await answer(client.GET('/api/machines'))
    emit('change', { machine: kept.name })
  } catch (error) {
    tellError(error)
  }
}
async function removeMachine() {
  try {
    await answer(client.DELETE('/api/machines/{name}', { params: { path: { name: props.job.machine } } }))
    machines.value = await answer(client.GET('/api/machines'))
    emit('change', { machine: 'plotter' })
  } catch (error) {
    tellError(error)
  }
}
const options = computed(() => props.job.options)
const set = (change: Partial<Schemas['JobOptions']>) => emit('change', { options: { ...options.value, ...change } as Schemas['JobOptions'] })

/** Papers with the format that each has now. */
const papers = computed(() => {
  const found = new Map<string, { key: string; name: string; size: [number, number] }>()
  for (const s of props.job.layout?.sheets ?? []) {
    if (!found.has(s.paper)) found.set(s.paper, { key: s.paper_key, name: s.paper, size: [s.width, s.roll ? 0 : s.height] })
  }
  return [...found.values()]
})
function setFormat(key: string, name: string) {
  const size = parseFormat(name)
  if (name && !size) return tell(t('“{name}” is no size: type one as 210 x 500, or roll 420.', { name }), 'warning')
  const formats = { ...options.value.formats }
  if (size) formats[key] = size
  else delete formats[key]
  set({ formats })
}
/** Keys of papers; one that is known by its name is chosen by its key as well. */
const insideUp = computed(() => (options.value.inside_up ?? []).map((known) => papers.value.find((p) => p.name === known)?.key ?? known))
const turns = [
  ['quarters', t('by quarters')],
  ['free', t('by any twelfth')],
  ['halves', t('by halves')],
  ['none', t('not at all')],
] as const
/** Scores made in a second set-up of the sheet. */
const INSIDE = [
  ['all', t('valleys, too')],
  ['meant', t('as steps say')],
  ['same', t('nothing')],
] as const
</script>

<template>
  <section>
    <h2>{{ $t('Sheets and machine') }}</h2>
    <label class="wide">{{ $t('Machine') }}
      <ElSelect :model-value="job.machine" :aria-label="$t('Machine')" @update:model-value="(machine: string) => emit('change', { machine })">
        <ElOption v-for="m in machines" :key="m.name" :value="m.name" :label="m.title" />
      </ElSelect>
    </label>
    <p class="own">
      <input ref="picker" type="file" accept=".json" class="visually-hidden" tabindex="-1" :aria-label="$t('Description of a machine')" @change="addMachine" />
      <ElButton text size="small" :title="$t('A description of your own, as a JSON file')" @click="picker?.click()">{{ $t('Add a machine …') }}</ElButton>
      <ElButton v-if="isOwn" text size="small" @click="removeMachine">{{ $t('Remove this one') }}</ElButton>
    </p>
    <label>{{ $t('Gap') }}
      <LengthInput :model-value="options.gap_mm ?? 2" :unit="unit" :label="$t('Gap')" :min="0" :max="100" @update:model-value="(gap_mm: number) => set({ gap_mm })" />
    </label>
    <label>{{ $t('Edge kept free') }}
      <LengthInput :model-value="options.edge_mm ?? 5" :unit="unit" :label="$t('Edge kept free')" :min="0" :max="200" @update:model-value="(edge_mm: number) => set({ edge_mm })" />
    </label>
    <label>{{ $t('Pieces are turned') }}
      <ElSelect :model-value="options.turns" :aria-label="$t('Pieces are turned')" @update:model-value="(t: 'free' | 'quarters' | 'halves' | 'none') => set({ turns: t })">
        <ElOption v-for="[value, label] in turns" :key="value" :value="value" :label="label" />
      </ElSelect>
    </label>
    <label class="switch">{{ $t('Folds along the grain') }}
      <ElSwitch :model-value="options.with_grain" :aria-label="$t('Folds along the grain')" @update:model-value="(v: string | number | boolean) => set({ with_grain: v === true })" />
    </label>
    <label class="switch" :title="$t('Small pieces may lie in the windows of others.')">{{ $t('Pieces in windows') }}
      <ElSwitch :model-value="options.in_windows" :aria-label="$t('Pieces in windows')" @update:model-value="(v: string | number | boolean) => set({ in_windows: v === true })" />
    </label>
    <label>{{ $t('Scored from the inside') }}
      <ElSelect :model-value="options.inside" :aria-label="$t('Scored from the inside')" @update:model-value="(inside: 'meant' | 'all' | 'same') => set({ inside })">
        <ElOption v-for="[value, label] in INSIDE" :key="value" :value="value" :label="label" />
      </ElSelect>
    </label>
    <label>{{ $t('Holding bridges') }}
      <NumberInput :model-value="options.bridges ?? 0" whole :suffix="$t('each')" :label="$t('Holding bridges')" :min="0" :max="12" @update:model-value="(bridges: number) => set({ bridges })" />
    </label>
    <label v-if="options.bridges">{{ $t('Bridge width') }}
      <LengthInput :model-value="options.bridge_width ?? 0.4" :unit="unit" :label="$t('Bridge width')" :min="0.1" :max="5" @update:model-value="(bridge_width: number) => set({ bridge_width })" />
    </label>
    <template v-if="papers.length">
      <h2>{{ $t('Formats') }}</h2>
      <label v-for="p in papers" :key="p.key">{{ p.name }}
        <ElSelect :model-value="formatName(p.size)" filterable allow-create default-first-option :aria-label="$t('Format of {name}', { name: p.name })" @update:model-value="(name: string) => setFormat(p.key, name)">
          <ElOption value="" :label="$t('as it is bought')" />
          <ElOption v-for="f in FORMATS" :key="f.name" :value="f.name" :label="f.name" />
        </ElSelect>
      </label>
      <label class="wide">{{ $t('Papers whose pieces lie inside up') }}
        <ElSelect :model-value="insideUp" multiple collapse-tags :placeholder="$t('none')" :aria-label="$t('Papers whose pieces lie inside up')" @update:model-value="(inside_up: string[]) => set({ inside_up })">
          <ElOption v-for="p in papers" :key="p.key" :value="p.key" :label="p.name" />
        </ElSelect>
      </label>
    </template>
    <template v-if="offcuts.length">
      <h2>{{ $t('Offcuts to use up') }}</h2>
      <label v-for="o in offcuts" :key="o.id" class="switch">{{ o.paper }}: {{ o.name }}
        <ElSwitch :model-value="job.offcuts.includes(o.id)" :aria-label="$t('Use {name}', { name: o.name })" @update:model-value="(v: string | number | boolean) => emit('change', { offcuts: v === true ? [...job.offcuts, o.id] : job.offcuts.filter((n) => n !== o.id) })" />
      </label>
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
h2 {
  margin-top: 6px;
}
label {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 142px;
  align-items: center;
  gap: 8px;
  font-size: var(--size-text);
}
.wide {
  grid-template-columns: 1fr;
  gap: 2px;
}
.own {
  margin: -4px 0 0 -8px;
}
.switch {
  grid-template-columns: minmax(0, 1fr) auto;
}
</style>
