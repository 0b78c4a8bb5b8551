<script setup lang="ts">
/** What to do next in the course, over every screen; it names the screen where that is another one. */
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { t } from '@/shared/words'
import { LESSONS, useCourse } from './course'

const route = useRoute()
const router = useRouter()
const { at, lesson, finished, leave, go } = useCourse()
const here = computed(() => !lesson.value || lesson.value.where === route.name)
const PLACES: Record<string, string> = { designs: t('the designs'), new: t('“New card”'), bench: t('your card: open it from the designs') }
const way = computed(() => PLACES[lesson.value?.where ?? ''] ?? '')
const toPlace = () => router.push(lesson.value?.where === 'new' ? '/new' : '/')
</script>

<template>
  <section v-if="lesson || finished" class="course" :class="{ bench: route.name === 'bench' }" :aria-label="$t('A first card, step by step')" aria-live="polite">
    <template v-if="lesson">
      <p class="soft figure">{{ $t('{at} of {n}', { at: at! + 1, n: LESSONS.length }) }}</p>
      <h2>{{ lesson.title }}</h2>
      <p v-if="here">{{ lesson.says }}</p>
      <p v-else>{{ $t('This goes on at {way}.', { way }) }} <ElButton size="small" @click="toPlace">{{ $t('Go there') }}</ElButton></p>
      <div class="row">
        <ElButton size="small" :disabled="at === 0" @click="go(-1)">{{ $t('Back') }}</ElButton>
        <ElButton size="small" @click="go(1)">{{ $t('Skip') }}</ElButton>
        <span class="spring" />
        <ElButton size="small" text @click="leave">{{ $t('Leave') }}</ElButton>
      </div>
    </template>
    <template v-else>
      <h2>{{ $t('That is a card.') }}</h2>
      <p>{{ $t('Windows, words, borders and folds are all steps: press / and say what you want. “+ add a piece” makes mats and inserts. The key ? has the keys and the words.') }}</p>
      <div class="row"><span class="spring" /><ElButton size="small" type="primary" @click="leave">{{ $t('Done') }}</ElButton></div>
    </template>
  </section>
</template>

<style scoped>
.course {
  position: fixed;
  left: 16px;
  bottom: 16px;
  z-index: 3000;
  width: 300px;
  padding: 12px 16px;
  border: 2px solid var(--accent);
  border-radius: 10px;
  background: var(--surface);
  box-shadow: 0 8px 28px rgb(40 30 10 / 22%);
  font-size: var(--size-text);
}
/* beside the strip and the view's own tools, which lessons speak of */
.course.bench {
  left: 40px;
  bottom: 208px;
}
h2 {
  margin: 2px 0 4px;
  font-size: var(--size-heading);
}
p {
  margin: 0;
}
.row {
  display: flex;
  margin-top: 10px;
}
</style>
