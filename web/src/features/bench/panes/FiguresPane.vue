<script setup lang="ts">
/** What is measured: readings, folds for the hand, and checks with their mends. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Envelope, Unit } from '@/shared/api/document'
import { t } from '@/shared/words'
import ChecksPane from './ChecksPane.vue'
import { useLocalStorage } from '@vueuse/core'
import { useCourse } from '@/features/help'
import FoldsPane from './FoldsPane.vue'
import ReadingsPane from './ReadingsPane.vue'
import SplitBar from './SplitBar.vue'

const props = defineProps<{
  rest: Pick<Schemas['RestView'], 'readings' | 'envelopes' | 'findings' | 'scoring' | 'shut' | 'ticks'>
  marked: Schemas['FindingView'] | null
  unit: Unit
}>()
const emit = defineEmits<{ mark: [finding: Schemas['FindingView'] | null]; mend: [wish: Schemas['MendView']]; accept: [finding: Schemas['FindingView'], reason: string]; reopen: [finding: Schemas['FindingView']]; envelope: [envelope: Envelope]; aim: [figure: string] }>()

const tab = ref<'readings' | 'folds' | 'checks'>('readings')
const tabs = [
  { key: 'readings', label: t('Readings') },
  { key: 'folds', label: t('Folds') },
  { key: 'checks', label: t('Checks') },
] as const
const course = useCourse()
const away = useLocalStorage('stileblade.bench.figures.away', false)
function show(key: (typeof tabs)[number]['key']) {
  tab.value = key
  away.value = false
  if (key === 'checks') course.reach('checks')
}
const findings = computed(() => props.rest.findings)
const open = computed(() => findings.value.filter((f) => !f.accepted))
const errors = computed(() => open.value.some((f) => f.severity === 'error'))
const warnings = computed(() => open.value.some((f) => f.severity === 'warning'))
</script>

<template>
  <div class="figures" :class="{ away }">
    <SplitBar v-if="!away" sizes="figures" :label="$t('Height of the readings')" />
    <div class="head">
      <div v-arrows class="tabs" role="tablist">
        <button v-for="own in tabs" :key="own.key" class="plain-button" role="tab" :aria-selected="tab === own.key" :class="{ chosen: tab === own.key }" @click="show(own.key)">
          {{ own.label }}
          <span v-if="own.key === 'checks'" class="count" :class="{ error: errors, warning: !errors && warnings }">{{ open.length ? open.length : '✓' }}</span>
        </button>
      </div>
      <button class="plain-button hide" :title="away ? $t('Show them again') : $t('Fold them away: more room for the step')" @click="away = !away">{{ away ? $t('show') : $t('fold away') }}</button>
    </div>
    <div v-if="!away" class="scroll" tabindex="0" role="group" :aria-label="$t('Figures of the card')">
      <ReadingsPane v-if="tab === 'readings'" :readings="rest.readings" :envelopes="rest.envelopes" :unit="unit" @envelope="(e) => emit('envelope', e)" @aim="(f) => emit('aim', f)" />
      <FoldsPane v-else-if="tab === 'folds'" :scoring="rest.scoring" :shut="rest.shut" :shaped="rest.ticks.length > 0" :unit="unit" />
      <ChecksPane v-else :findings="findings" :marked="marked" @mark="(f) => emit('mark', f)" @mend="(m) => emit('mend', m)" @accept="(f, reason) => emit('accept', f, reason)" @reopen="(f) => emit('reopen', f)" />
    </div>
  </div>
</template>

<style scoped>
.figures {
  display: grid;
  position: relative;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
}
.scroll {
  overflow: auto;
  padding: 6px 16px 12px;
  font-size: var(--size-text);
}
.head {
  display: flex;
  justify-content: space-between;
  padding: 0 16px;
  border-bottom: 1px solid var(--border);
}
.tabs {
  display: flex;
  gap: 18px;
}
.tabs button {
  padding: 6px 0 5px;
  font-weight: 600;
  color: var(--text-soft);
  border-bottom: 2px solid transparent;
}
.hide {
  color: var(--accent);
  font-size: var(--size-small);
}
.tabs .chosen {
  color: var(--text);
  border-bottom-color: var(--accent);
}
.count {
  display: inline-block;
  min-width: 18px;
  padding: 0 5px;
  border-radius: 9px;
  background: var(--paper-3);
  color: var(--text);
  text-align: center;
  font: 600 var(--size-figure)/16px var(--figures);
}
.count.error {
  background: var(--error);
  color: #fff;
}
.count.warning {
  background: #f0d58a;
}
</style>
