<script setup lang="ts">
/** Findings: picked, a finding shows its place; one press mends it where there is a mend, or sets it aside with a reason. */
import { computed, nextTick, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { t } from '@/shared/words'

type Finding = Schemas['FindingView']
const props = defineProps<{ findings: readonly Finding[]; marked: Finding | null }>()
const emit = defineEmits<{ mark: [finding: Finding | null]; mend: [mend: Schemas['MendView']]; accept: [finding: Finding, reason: string]; reopen: [finding: Finding] }>()
const MARKS = { error: '✕', warning: '△', note: '○' }
const open = computed(() => props.findings.filter((f) => !f.accepted))
const accepted = computed(() => props.findings.filter((f) => f.accepted))

const keyOf = (f: Finding) => `${f.code} ${f.piece} ${f.step}`
/** The key of the finding that a reason is being typed for: it stays the same when the card is computed anew. */
const judged = ref('')
const reason = ref('')
const field = ref<{ focus: () => void }[]>([])
async function judge(finding: Finding) {
  judged.value = keyOf(finding)
  reason.value = ''
  await nextTick()
  field.value[0]?.focus()
}
function accept(finding: Finding) {
  emit('accept', finding, reason.value.trim() || t('as intended'))
  judged.value = ''
}
</script>

<template>
  <ul v-if="open.length" class="checks">
    <li v-for="(f, i) in open" :key="`${f.code}-${f.step}-${i}`" :class="[f.severity, { marked: marked === f }]">
      <button class="plain-button text" :aria-pressed="marked === f" :title="$t('Show the place')" @click="emit('mark', marked === f ? null : f)">
        <span class="mark" :aria-label="f.severity">{{ MARKS[f.severity] }}</span>
        <span>
          {{ f.message }}
          <span v-if="f.hint" class="soft">{{ f.hint }}</span>
          <span v-if="f.where" class="where soft">{{ f.where }}</span>
        </span>
      </button>
      <form v-if="judged === keyOf(f)" class="why" @submit.prevent="accept(f)" @keydown.esc.stop="judged = ''">
        <ElInput ref="field" v-model="reason" size="small" maxlength="200" :placeholder="$t('as intended')" :aria-label="$t('Why it may stay as it is')" />
        <ElButton size="small" native-type="submit">{{ $t('Accept') }}</ElButton>
      </form>
      <span v-else class="mends">
        <ElButton v-for="m in f.mends" :key="m.title" size="small" @click="emit('mend', m)">{{ m.title }}</ElButton>
        <button class="plain-button leave" :title="$t('Accept it with a reason: it is set aside, and counted apart')" @click="judge(f)">{{ $t('leave it so') }}</button>
      </span>
    </li>
  </ul>
  <p v-else class="good"><span aria-hidden="true">✓</span> {{ $t('All checks passed.') }}</p>
  <details v-if="accepted.length" class="accepted">
    <summary>{{ $t('{n} accepted', { n: accepted.length }) }}</summary>
    <ul class="checks">
      <li v-for="(f, i) in accepted" :key="`${f.code}-${f.step}-${i}`" :class="{ marked: marked === f }">
        <button class="plain-button text" :aria-pressed="marked === f" :title="$t('Show the place')" @click="emit('mark', marked === f ? null : f)">
          <span class="mark soft" :aria-label="f.severity">{{ MARKS[f.severity] }}</span>
          <span>
            <span class="soft">{{ f.message }}</span> {{ $t('Accepted: {reason}', { reason: f.accepted }) }}
            <span v-if="f.where" class="where soft">{{ f.where }}</span>
          </span>
        </button>
        <span class="mends"><button class="plain-button leave" @click="emit('reopen', f)">{{ $t('count it again') }}</button></span>
      </li>
    </ul>
  </details>
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
.leave {
  align-self: center;
  color: var(--accent);
  font-size: var(--size-small);
}
.why {
  display: flex;
  flex: 1 1 190px;
  gap: 6px;
  margin-left: 20px;
}
.accepted {
  margin-top: 8px;
}
.accepted summary {
  color: var(--text-soft);
  cursor: pointer;
}
.good {
  color: var(--good);
  font-weight: 550;
}
</style>
