<script setup lang="ts">
/** Keys by their places, and words of the trade with pictures; both found by what is typed. */
import { computed, ref } from 'vue'
import LanguageChoice from '@/shared/components/LanguageChoice.vue'
import { useCourse } from './course'
import { KEYS } from './keys'
import { WORDS } from './words'

const emit = defineEmits<{ close: [] }>()
const course = useCourse()
const words = ref('')
const part = ref<'words' | 'keys'>('words')
const meets = (...texts: (string | undefined)[]) => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  const text = texts.join(' ').toLowerCase()
  return wanted.every((w) => text.includes(w))
}
const foundWords = computed(() => WORDS.filter((w) => meets(w.word, w.also, w.says)))
const foundKeys = computed(() =>
  KEYS.map((k) => ({ ...k, keys: k.keys.filter(([key, does]) => meets(key, does, k.where)) })).filter((k) => k.keys.length),
)
function begin() {
  course.begin()
  emit('close')
}
</script>

<template>
  <ElDialog model-value :title="$t('Keys and words')" width="820px" top="6vh" @close="emit('close')">
    <div class="top">
      <ElRadioGroup v-model="part" :aria-label="$t('What is shown')">
        <ElRadioButton value="words">{{ $t('Words of the trade') }}</ElRadioButton>
        <ElRadioButton value="keys">{{ $t('Keys') }}</ElRadioButton>
      </ElRadioGroup>
      <ElInput v-model="words" :placeholder="$t('Find')" :aria-label="$t('Find in the help')" clearable class="find" />
      <span class="spring" />
      <LanguageChoice />
      <ElButton @click="begin">{{ $t('A first card, step by step') }}</ElButton>
    </div>
    <div class="scroll" tabindex="0" role="group" :aria-label="part === 'words' ? $t('Words of the trade') : $t('Keys')">
      <dl v-if="part === 'words'" class="words">
        <div v-for="w in foundWords" :key="w.word">
          <dt>
            <svg viewBox="0 0 64 44" aria-hidden="true">
              <path v-if="w.paper" class="paper" :d="w.paper" fill-rule="evenodd" />
              <path v-if="w.second" class="second" :d="w.second" />
              <path v-if="w.cut" class="cut" :d="w.cut" />
              <path v-if="w.fold" class="fold" :d="w.fold" />
              <path v-if="w.meant" class="meant" :d="w.meant" />
            </svg>
            {{ w.word }}<span v-if="w.also" class="soft">, {{ w.also }}</span>
          </dt>
          <dd>{{ w.says }}</dd>
        </div>
      </dl>
      <div v-else class="keys">
        <section v-for="k in foundKeys" :key="k.where">
          <h3>{{ k.where }}</h3>
          <dl>
            <template v-for="[key, does] in k.keys" :key="key">
              <dt><kbd>{{ key }}</kbd></dt>
              <dd>{{ does }}</dd>
            </template>
          </dl>
        </section>
      </div>
      <p v-if="part === 'words' ? !foundWords.length : !foundKeys.length" class="soft">{{ $t('Nothing here is called “{words}”.', { words }) }}</p>
    </div>
  </ElDialog>
</template>

<style scoped>
.top {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 12px;
}
.find {
  width: 180px;
}
.scroll {
  height: 58vh;
  overflow: auto;
}
.words {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 18px;
  margin: 0;
}
.words > div {
  position: relative;
  min-height: 54px;
  padding-left: 88px;
}
svg {
  position: absolute;
  left: 0;
  top: 0;
  width: 76px;
  border-radius: 6px;
  background: var(--chrome-deep);
}
dt {
  font-weight: 650;
}
dd {
  margin: 0;
  font-size: var(--size-text);
}
.paper {
  fill: var(--paper-0);
  stroke: var(--line-cut);
  stroke-width: 1;
}
.second {
  fill: #b9d2d6;
  stroke: var(--line-cut);
  stroke-width: 0.8;
}
.cut {
  fill: none;
  stroke: var(--line-cut);
  stroke-width: 1.2;
}
.fold {
  fill: none;
  stroke: var(--line-fold);
  stroke-width: 1.2;
  stroke-dasharray: 3 2;
}
.meant {
  fill: rgb(168 86 24 / 18%);
  stroke: var(--accent);
  stroke-width: 1.8;
}
.keys {
  columns: 2;
  column-gap: 24px;
}
section {
  break-inside: avoid;
  margin-bottom: 14px;
}
h3 {
  margin: 0 0 6px;
  font-size: var(--size-heading);
}
.keys dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 12px;
  margin: 0;
}
kbd {
  padding: 1px 6px;
  border: 1px solid var(--border-strong);
  border-radius: 4px;
  font: 600 var(--size-small) var(--figures);
  white-space: nowrap;
}
</style>
