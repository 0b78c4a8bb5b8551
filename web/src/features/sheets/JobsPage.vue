<script setup lang="ts">
/** All jobs; a new one begins with its cards. */
import { onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { answer, client, type Schemas } from '@/shared/api/client'
import { ApiError } from '@/shared/api/errors'
import BrandMark from '@/shared/components/BrandMark.vue'
import { ask, tellError } from '@/shared/messages'
import { t } from '@/shared/words'

const router = useRouter()
const jobs = ref<readonly Schemas['JobEntry'][] | null>(null)
const trouble = ref('')
async function load() {
  trouble.value = ''
  try {
    jobs.value = await answer(client.GET('/api/jobs'))
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    trouble.value = error.text
  }
}
onMounted(load)
async function begin() {
  try {
    const made = await answer(client.POST('/api/jobs', { body: { name: t('New job'), designs: [] } }))
    await router.push({ name: 'job', params: { id: made.id } })
  } catch (error) {
    tellError(error)
  }
}
async function remove(job: Schemas['JobEntry']) {
  if (!(await ask(t('Delete this job?'), t('“{name}” and its layout are gone then. Its designs stay.', { name: job.name }), t('Delete')))) return
  try {
    await answer(client.DELETE('/api/jobs/{number}', { params: { path: { number: job.id } } }))
    await load()
  } catch (error) {
    tellError(error)
  }
}
const cards = (job: Schemas['JobEntry']) => job.designs.reduce((n, d) => n + (d.count ?? 1), 0)
</script>

<template>
  <div class="page">
    <header class="top">
      <RouterLink to="/"><BrandMark /></RouterLink>
      <span class="spring" />
      <RouterLink to="/cutter">{{ $t('The cutter') }}</RouterLink>
      <RouterLink to="/">{{ $t('Designs') }}</RouterLink>
      <ElButton type="primary" @click="begin">{{ $t('New job') }}</ElButton>
    </header>
    <main class="page-inner">
      <h1>{{ $t('Jobs') }}</h1>
      <p v-if="trouble" class="state" role="alert">{{ trouble }} <ElButton size="small" @click="load">{{ $t('Try again') }}</ElButton></p>
      <p v-else-if="!jobs" class="state soft" aria-busy="true">{{ $t('Looking for jobs …') }}</p>
      <div v-else-if="!jobs.length" class="state">
        <p>{{ $t('A job is designs and how many cards of each. Their pieces are laid on sheets by paper, and leave as files to cut.') }}</p>
        <ElButton type="primary" @click="begin">{{ $t('Begin the first job') }}</ElButton>
      </div>
      <ul v-else>
        <li v-for="job in jobs" :key="job.id">
          <RouterLink :to="{ name: 'job', params: { id: job.id } }" class="title">{{ job.name }}</RouterLink>
          <span class="soft">{{ $t('{cards} of {designs}', { cards: $t('{n} card | {n} cards', cards(job)), designs: $t('{n} design | {n} designs', job.designs.length) }) }}</span>
          <span class="soft">{{ job.sheets ? $t('{n} sheet | {n} sheets', job.sheets) : $t('not laid out yet') }}</span>
          <span class="changed">{{ job.changed.length ? $t('changed since: {changed}', { changed: job.changed.join(', ') }) : '' }}</span>
          <ElButton text size="small" :aria-label="$t('Delete {name}', { name: job.name })" @click="remove(job)">{{ $t('Delete') }}</ElButton>
        </li>
      </ul>
    </main>
  </div>
</template>

<style scoped>
h1 {
  font-size: var(--size-title);
  margin-bottom: 12px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 8px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1.2fr) 130px minmax(0, 2fr) auto;
  align-items: center;
  gap: 14px;
  padding: 12px 16px;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 10px;
}
.title {
  font-weight: 650;
  color: inherit;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.changed {
  color: var(--warning);
  font-size: var(--size-text);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.state {
  padding: 48px 0;
  display: grid;
  gap: 14px;
  justify-items: start;
  max-width: 520px;
}
</style>
