<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { inSentence, useCatalogue } from '@/shared/catalogue'
import type { DesignData, Unit } from '@/shared/api/document'
import BrandMark from '@/shared/components/BrandMark.vue'
import TextField from '@/shared/components/TextField.vue'
import { tellError } from '@/shared/messages'
import { formatMeasures } from '@/shared/units/figures'
import { called, locale, t } from '@/shared/words'
import { FamilyMark } from '@/features/family'
import { HelpButton } from '@/features/help'
import { beginJob } from '@/features/sheets'
import type { SaveState } from './state/saving'

const props = defineProps<{
  id: number
  document: DesignData
  closed: readonly number[]
  state: SaveState
  trouble: string
  savedAt: Date | null
  canUndo: boolean
  canRedo: boolean
  errors: number
}>()
const emit = defineEmits<{
  rename: [name: string]
  unit: [unit: Unit]
  undo: []
  redo: []
  save: []
  history: []
  export: []
}>()

const saving = computed(() => {
  switch (props.state) {
    case 'saved':
      return props.savedAt ? t('saved {time}', { time: props.savedAt.toLocaleTimeString(locale(), { hour: '2-digit', minute: '2-digit' }) }) : t('saved')
    case 'offline':
      return t('not reached, kept here')
    case 'unkept':
      return t('not kept on the server')
    case 'refused':
      return t('not saved')
    case 'conflict':
      return t('two versions')
    default:
      return t('saving …')
  }
})
/** Where pressing it does something: saving is tried again. */
const TROUBLED: ReadonlySet<SaveState> = new Set<SaveState>(['offline', 'unkept', 'refused', 'conflict'])
const router = useRouter()
/** A job with one of this card, to be laid out on sheets. */
async function toSheets() {
  try {
    await router.push({ name: 'job', params: { id: await beginJob([props.id], props.document.name) } })
  } catch (error) {
    tellError(error)
  }
}
const catalogue = useCatalogue()
const card = computed(() => {
  const { size, folding } = props.document.card
  const way = catalogue.way(folding.kind)
  return `${called(size.name)} ${inSentence(way?.title ?? '')}`
})
const shut = computed(() => formatMeasures(props.closed, 'mm', props.document.units))
</script>

<template>
  <header class="bar">
    <RouterLink to="/" class="home" :title="$t('Back to the designs')"><BrandMark /></RouterLink>
    <TextField
      :model-value="document.name"
      class="name"
      :label="$t('Name of the design')"
      :maxlength="120"
      :title="document.name"
      @update:model-value="(v) => emit('rename', v)"
    />
    <span class="card" :title="card">
      <span class="what">{{ card }}</span>
      <span class="figure" :title="`${$t('Closed size')}: ${shut}`">{{ $t('closed {closed}', { closed: shut }) }}</span>
    </span>
    <span class="spring" />
    <ElRadioGroup
      :model-value="document.units"
      size="small"
      :aria-label="$t('Unit')"
      @update:model-value="(v) => emit('unit', v as Unit)"
    >
      <ElRadioButton value="mm">mm</ElRadioButton>
      <ElRadioButton value="in">in</ElRadioButton>
    </ElRadioGroup>
    <span class="pair">
      <ElButton text :disabled="!canUndo" :title="$t('Undo (Ctrl+Z)')" @click="emit('undo')">{{ $t('Undo') }}</ElButton>
      <ElButton text :disabled="!canRedo" :title="$t('Redo (Ctrl+Shift+Z)')" @click="emit('redo')">{{ $t('Redo') }}</ElButton>
    </span>
    <HelpButton />
    <ElButton text class="history" :title="$t('Earlier versions of this design')" @click="emit('history')">{{ $t('History') }}</ElButton>
    <FamilyMark :id="id" :saved-at="savedAt" :unit="document.units" />
    <span v-if="!TROUBLED.has(state)" class="saved" :title="$t('Work is saved by itself')" data-testid="save-state">{{ saving }}</span>
    <button v-else class="plain-button saved" :class="state" :title="$t('{trouble} Press to try again.', { trouble })" :aria-description="trouble" data-testid="save-state" @click="emit('save')">
      {{ saving }}
    </button>
    <ElButton text :title="$t('All pieces of this card, laid out on sheets')" @click="toSheets">{{ $t('Sheets') }}</ElButton>
    <ElButton type="primary" :title="errors ? $t('{errors} of the checks say that it will fail', { errors }) : $t('SVG, PDF, DXF, PNG')" @click="emit('export')">{{ $t('Cut files') }}</ElButton>
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 10px;
  height: 48px;
  padding: 0 16px;
  background: var(--surface);
  border-bottom: 1px solid var(--border);
}
.home {
  color: inherit;
  text-decoration: none;
}
.name {
  flex: 0 1 200px;
  min-width: 120px;
}
.name :deep(.el-input__wrapper) {
  box-shadow: none;
  background: none;
  padding: 0 8px;
}
.name :deep(.el-input__wrapper:hover),
.name :deep(.el-input__wrapper.is-focus) {
  box-shadow: 0 0 0 1px var(--border-strong);
}
.name :deep(input) {
  font-weight: 650;
  font-size: var(--size-heading);
  text-overflow: ellipsis;
}
.card {
  display: flex;
  gap: 12px;
  align-items: baseline;
  flex: 0 2 auto;
  min-width: 0;
  padding: 3px 10px;
  border-radius: 6px;
  background: var(--chrome-deep);
  font-size: var(--size-text);
  white-space: nowrap;
}
.what,
.figure {
  overflow: hidden;
  text-overflow: ellipsis;
}
.bar :deep(.el-radio-group) {
  flex: none;
  flex-wrap: nowrap;
}
@media (max-width: 1150px) {
  .bar {
    gap: 4px;
    padding: 0 8px;
  }
  .bar .what {
    display: none;
  }
  /* the sign alone: the room is for the closed size */
  .home {
    flex: none;
    width: 22px;
    overflow: hidden;
  }
  .card {
    overflow: hidden;
    padding: 3px 6px;
    font-size: var(--size-small);
  }
  .pair :deep(.el-button) {
    padding: 6px 4px;
  }
  .bar .name {
    flex: 0 20 170px;
    min-width: 96px;
  }
}
.pair {
  display: flex;
}
.pair :deep(.el-button) {
  padding: 6px 8px;
  margin: 0;
}
.saved {
  min-width: 84px;
  text-align: right;
  font-size: var(--size-small);
  color: var(--text-soft);
  white-space: nowrap;
}
.history {
  padding: 6px 8px;
  margin: 0;
}
.offline,
.unkept,
.refused,
.conflict {
  color: var(--error);
  font-weight: 600;
}
</style>
