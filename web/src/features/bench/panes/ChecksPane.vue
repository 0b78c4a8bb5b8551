<script setup lang="ts">
/** Findings: picked, a finding shows its place; mended by one press where there is a mend. */
import type { Schemas } from '@/shared/api/client'

type Finding = Schemas['FindingView']
defineProps<{ findings: readonly Finding[]; marked: Finding | null }>()
const emit = defineEmits<{ mark: [finding: Finding | null]; mend: [mend: Schemas['MendView']] }>()
const MARKS = { error: '✕', warning: '△', note: '○' }
</script>

<template>
  <ul v-if="findings.length" class="checks">
    <li v-for="(f, i) in findings" :key="`${f.code}-${f.step}-${i}`" :class="[f.severity, { marked: marked === f }]">
      <button class="plain-button text" :aria-pressed="marked === f" :title="$t('Show the place')" @click="emit('mark', marked === f ? null : f)">
        <span class="mark" :aria-label="f.severity">{{ MARKS[f.severity] }}</span>
        <span>
          {{ f.message }}
          <span v-if="f.hint" class="soft">{{ f.hint }}</span>
          <span v-if="f.where" class="where soft">{{ f.where }}</span>
        </span>
      </button>
      <span v-if="f.mends.length" class="mends">
        <ElButton v-for="m in f.mends" :key="m.title" size="small" @click="emit('mend', m)">{{ m.title }}</ElButton>
      </span>
    </li>
  </ul>
  <p v-else class="good"><span aria-hidden="true">✓</span> {{ $t('All checks passed.') }}</p>
</template>

<style scoped>
.checks {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 4px 8px;
  padding: 5px 6px;
  border-radius: 6px;
}
li.marked {
  background: var(--accent-pale);
}
.text {
  flex: 1 1 190px;
  display: grid;
  grid-template-columns: 20px 1fr;
  overflow-wrap: anywhere;
}
.where {
  display: block;
  font-size: var(--size-small);
}
.mark {
  font-weight: 700;
}
.error .mark {
  color: var(--error);
}
.warning .mark {
  color: var(--warning);
}
.note .mark {
  color: var(--note);
}
.mends {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-left: 20px;
}
.mends:has(:only-child) {
  margin-left: 0;
}
.mends :deep(.el-button + .el-button) {
  margin-left: 0;
}
.good {
  color: var(--good);
  font-weight: 550;
}
</style>
