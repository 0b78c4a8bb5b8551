<script setup lang="ts">
/** The moments of a design in pictures, by day: looked at beside the card as it is, named, gone back to, or made a
 *  design of their own. Going back is a change, which can be undone. */
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData, Unit } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { askText, tell, tellError } from '@/shared/messages'
import { locale, t } from '@/shared/words'
import VersionCard from './VersionCard.vue'

const props = defineProps<{ id: number; unit: Unit }>()
const emit = defineEmits<{ close: []; take: [document: DesignData] }>()
type Version = Schemas['Version']
const router = useRouter()
const open = ref(true)
const versions = ref<readonly Version[] | null>(null)
const trouble = ref('')
const chosen = shallowRef<Version | null>(null)
const today = shallowRef<Schemas['Summary'] | null>(null)
const SHOWN = 24
const shown = ref(SHOWN)

onMounted(async () => {
  const path = { number: props.id }
  try {
    versions.value = await answer(client.GET('/api/designs/{number}/versions', { params: { path } }))
    chosen.value = versions.value[0] ?? null
    today.value = await answer(client.GET('/api/designs/{number}/summary', { params: { path } }))
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    trouble.value = error.text
  }
})

/** By day, the newest first. */
const days = computed(() => {
  const found = new Map<string, Version[]>()
  for (const version of (versions.value ?? []).slice(0, shown.value)) {
    const day = new Date(version.saved).toLocaleDateString(locale(), { dateStyle: 'full' })
    found.set(day, [...(found.get(day) ?? []), version])
  }
  return [...found]
})
const pathOf = (version: Version) => ({ params: { path: { number: props.id, kept: version.kept } } })

async function take(version: Version) {
  try {
    emit('take', (await answer(client.GET('/api/designs/{number}/versions/{kept}', pathOf(version)))).document as DesignData)
  } catch (error) {
    tellError(error)
  }
}
async function name(version: Version) {
  const text = await askText(t('Name this moment'), t('It is kept for ever then'), version.name)
  if (text === null) return
  try {
    const named = await answer(client.PATCH('/api/designs/{number}/versions/{kept}', { ...pathOf(version), body: { name: text } }))
    versions.value = (versions.value ?? []).map((v) => (v.kept === named.kept ? named : v))
    chosen.value = named
  } catch (error) {
    tellError(error)
  }
}
async function makeDesign(version: Version) {
  try {
    const made = await answer(client.POST('/api/designs/{number}/versions/{kept}/design', pathOf(version)))
    open.value = false
    await router.push({ name: 'bench', params: { id: made.id } })
    tell(t('It is a design of its own now.'))
  } catch (error) {
    tellError(error)
  }
}
</script>

<template>
  <ElDialog v-model="open" :title="$t('History')" width="920" top="5vh" @closed="emit('close')">
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <p v-else-if="!versions" class="soft" aria-busy="true">{{ $t('Looking …') }}</p>
    <p v-else-if="!versions.length" class="soft">{{ $t('There is no earlier moment yet: each time the card is saved, the one before it is kept.') }}</p>
    <div v-else class="history">
      <div class="moments">
        <section v-for="[day, rows] in days" :key="day">
          <h3>{{ day }}</h3>
          <div class="grid" role="group" :aria-label="day">
            <VersionCard v-for="v in rows" :id="id" :key="v.kept" :version="v" :chosen="chosen?.kept === v.kept" @choose="chosen = v" />
          </div>
        </section>
        <ElButton v-if="versions.length > shown" text @click="shown += SHOWN">{{ $t('{n} earlier ones …', { n: versions.length - shown }) }}</ElButton>
      </div>
      <div class="beside">
        <h3>{{ $t('Then') }}</h3>
        <VersionCard v-if="chosen" :id="id" :key="chosen.kept" :version="chosen" large :unit="unit" />
        <h3>{{ $t('As last saved') }}</h3>
        <VersionCard :id="id" :summary="today" large :unit="unit" />
        <div v-if="chosen" class="acts">
          <ElButton type="primary" @click="take(chosen)">{{ $t('Go back to it') }}</ElButton>
          <ElButton @click="name(chosen)">{{ chosen.name ? $t('Rename') : $t('Name it') }}</ElButton>
          <ElButton @click="makeDesign(chosen)">{{ $t('Make a design of it') }}</ElButton>
        </div>
        <p class="soft note">{{ $t('Going back is a change like any other: undo brings the present card again.') }}</p>
      </div>
    </div>
  </ElDialog>
</template>

<style scoped>
.history {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: 20px;
}
.moments {
  max-height: 68vh;
  overflow: auto;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(118px, 1fr));
  gap: 8px;
}
h3 {
  margin: 6px 0;
  font-size: var(--size-small);
  color: var(--text-soft);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 12px;
}
.acts :deep(.el-button) {
  margin: 0;
}
.note {
  margin-top: 8px;
  font-size: var(--size-small);
}
</style>
