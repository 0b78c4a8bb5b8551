<script setup lang="ts">
/** What was changed in the design, offered to another of its family: each value kept, scaled or left as it is there,
 *  with the picture of what that one becomes. */
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { ask, tell, tellError } from '@/shared/messages'
import { formatMeasures } from '@/shared/units/figures'
import { called, t } from '@/shared/words'
import { changesInWords, useFamily, type Member } from './useFamily'

type How = Schemas['OfferedChange']['how']
const props = defineProps<{ id: number; unit: Unit }>()
const emit = defineEmits<{ close: [] }>()
const family = useFamily()
const router = useRouter()
const open = ref(true)
const busy = ref(false)
const chosen = shallowRef<Member | null>(null)
const offer = shallowRef<Schemas['KinOffer'] | null>(null)
const how = ref<Record<string, How>>({})
let revision = 0

onMounted(async () => {
  await tried(() => family.load(props.id))
  const first = family.members.find((m) => m.changes) ?? family.members[0]
  if (first) await choose(first)
})

async function tried(act: () => Promise<unknown>) {
  busy.value = true
  try {
    await act()
  } catch (error) {
    tellError(error)
  } finally {
    busy.value = false
  }
}
const path = (member: Member) => ({ params: { path: { number: props.id, other: member.id } } })

async function choose(member: Member) {
  chosen.value = member
  how.value = {}
  offer.value = null
  await look()
}
async function look() {
  const member = chosen.value
  if (!member) return
  await tried(async () => {
    const own = await answer(client.GET('/api/designs/{number}', { params: { path: { number: props.id } } }))
    const found = await answer(client.POST('/api/designs/{number}/kin/{other}/offer', { ...path(member), body: { how: how.value } }))
    if (chosen.value !== member) return
    revision = own.revision
    offer.value = found
  })
}
function set(key: string, value: How) {
  how.value = { ...how.value, [key]: value }
  void look()
}
const taken = computed(() => offer.value?.changes.filter((c) => c.how !== 'left').length ?? 0)

async function take() {
  const member = chosen.value
  if (!member || !offer.value) return
  const choice = Object.fromEntries(offer.value.changes.map((c) => [c.key, c.how]))
  await tried(async () => {
    await answer(client.POST('/api/designs/{number}/kin/{other}', { ...path(member), body: { how: choice, revisions: [revision, member.revision] } }))
    tell(taken.value ? t('{name} has taken {taken} over. Its history has what it was before.', { name: member.name, taken: changesInWords(taken.value) }) : t('{name} stays as it is.', { name: member.name }))
    await family.load(props.id)
  })
  const next = family.members.find((m) => m.changes)
  if (next) await choose(next)
  else open.value = false
}
async function leave() {
  if (!(await ask(t('Leave the family?'), t('Nothing is offered from here or to here any more. All designs stay as they are.'), t('Leave it')))) return
  await tried(() => family.leave(props.id))
  open.value = false
}
/** The ways in which a change can be taken over, in words. */
function ways(change: Schemas['OfferedChange']): [How, string][] {
  return [
    ['kept', change.kept || t('as here')],
    ...(change.scaled ? [['scaled', change.kept ? `scaled: ${change.scaled}` : change.scaled] as [How, string]] : []),
    ['left', change.here ? t('stays {here}', { here: change.here }) : t('left out')],
  ]
}
</script>

<template>
  <ElDialog v-model="open" :title="$t('Family')" width="960" top="6vh" @closed="emit('close')">
    <div class="family" :aria-busy="busy">
      <div v-arrows class="members" role="group" :aria-label="$t('Designs of the family')">
        <button v-for="m in family.members" :key="m.id" class="plain-button member" :aria-pressed="m.id === chosen?.id" @click="choose(m)">
          <strong>{{ m.name }}</strong>
          <span class="soft">{{ called(m.size) }}, {{ m.changes ? changesInWords(m.changes) : $t('in step') }}</span>
        </button>
      </div>
      <div class="changes">
        <p v-if="offer && !offer.changes.length" class="soft">{{ $t('Nothing was changed here that {name} has not. Change the card, and what you changed is offered here.', { name: chosen?.name }) }}</p>
        <table v-else-if="offer">
          <thead>
            <tr><th scope="col">{{ $t('What was changed') }}</th><th scope="col">{{ $t('Here') }}</th><th scope="col">{{ $t('In {n}', { n: chosen?.size }) }}</th></tr>
          </thead>
          <tbody>
            <tr v-for="c in offer.changes" :key="c.key">
              <th scope="row"><strong>{{ c.title }}</strong><span class="soft">{{ [c.piece, c.of].filter(Boolean).join(', ') }}</span></th>
              <td class="figure">{{ c.before && c.after ? `${c.before} → ${c.after}` : c.after || (c.before ? $t('taken away') : $t('added')) }}</td>
              <td>
                <ElSelect :model-value="c.how" size="small" :aria-label="`${c.title}, ${c.of}`" @update:model-value="(v: How) => set(c.key, v)">
                  <ElOption v-for="[value, label] in ways(c)" :key="value" :value="value" :label="label" />
                </ElSelect>
                <span v-if="c.own" class="own">{{ $t('had a value of its own') }}</span>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-else class="soft">{{ $t('Looking …') }}</p>
        <p v-if="offer?.problem" role="alert" class="problem">{{ offer.problem }}</p>
      </div>
      <div v-if="offer?.look" class="look" :aria-label="$t('{name}, as it becomes', { name: chosen?.name })" role="group">
        <h3>{{ $t('As it becomes') }}</h3>
        <span class="flat"><PathPicture v-if="offer.look.flat" :path="offer.look.flat.path" :box="offer.look.flat.box" :folds="offer.look.flat.folds" :perforated="offer.look.flat.perforated" :drawn="offer.look.flat.drawn" /></span>
        <span class="shut"><FoldedPicture v-if="offer.look.folded" :picture="offer.look.folded" /></span>
        <p class="figure">{{ $t('closed {closed}', { closed: formatMeasures(offer.look.closed, 'mm', unit) }) }}</p>
        <ul class="findings">
          <li v-for="f in offer.look.findings" :key="f">{{ f }}</li>
          <li v-if="!offer.look.findings.length" class="good">{{ $t('nothing to mend') }}</li>
        </ul>
      </div>
    </div>
    <template #footer>
      <ElButton class="left" text @click="leave">{{ $t('Leave the family') }}</ElButton>
      <ElButton v-if="chosen" @click="((open = false), router.push({ name: 'bench', params: { id: chosen.id } }))">{{ $t('Open {size}', { size: chosen.size }) }}</ElButton>
      <ElButton type="primary" :disabled="!offer?.changes.length || Boolean(offer.problem)" :loading="busy" @click="take">
        {{ taken || !offer?.changes.length ? $t('Take over in {size}', { size: chosen?.size ?? '' }) : $t('Leave {size} as it is', { size: chosen?.size }) }}
      </ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.family {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) 200px;
  gap: 18px;
  min-height: 300px;
}
.members {
  display: grid;
  align-content: start;
  gap: 6px;
}
.member {
  display: grid;
  padding: 8px 10px;
  text-align: left;
  border: 1px solid var(--border);
  border-radius: 8px;
  overflow-wrap: anywhere;
}
.member[aria-pressed='true'] {
  border-color: var(--accent);
  box-shadow: 0 0 0 1px var(--accent);
}
.changes {
  max-height: 60vh;
  overflow: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: var(--size-text);
}
th {
  padding: 6px 8px 6px 0;
  text-align: left;
  font-weight: 400;
}
thead th {
  font-size: var(--size-small);
  color: var(--text-soft);
}
tbody th {
  display: grid;
}
td {
  padding: 6px 8px 6px 0;
}
tbody tr {
  border-top: 1px solid var(--border);
}
td :deep(.el-select) {
  width: 150px;
}
.own,
.problem {
  display: block;
  font-size: var(--size-small);
  color: var(--warning);
}
.look {
  display: grid;
  align-content: start;
  gap: 6px;
  font-size: var(--size-text);
}
.look > span {
  height: 120px;
}
.findings {
  padding-left: 16px;
  font-size: var(--size-small);
  color: var(--warning);
}
.findings .good {
  color: var(--good);
}
.left {
  float: left;
}
</style>
