<script setup lang="ts">
/** A word of one's own in each shipped font; pressing one takes it. */
import { onMounted, ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import PathPicture from '@/shared/components/PathPicture.vue'
import { tellError } from '@/shared/messages'
import { t } from '@/shared/words'

const emit = defineEmits<{ pick: [word: Schemas['WordPicture'], text: string] }>()
const text = ref(t('Ahoy'))
const words = ref<Schemas['WordPicture'][]>([])
let newest = 0

async function set() {
  const wanted = text.value.trim()
  if (!wanted) return
  const own = ++newest
  try {
    const found = await answer(client.GET('/api/words', { params: { query: { text: wanted } } }))
    if (own === newest) words.value = found as Schemas['WordPicture'][]
  } catch (error) {
    tellError(error)
  }
}
onMounted(set)
</script>

<template>
  <section :aria-label="$t('Words')">
    <div class="line">
      <h3>{{ $t('A word or a letter') }}</h3>
      <ElInput v-model="text" class="word" :aria-label="$t('Word or letter')" maxlength="80" @input="set" />
    </div>
    <p v-if="!words.length" class="soft" aria-busy="true">{{ $t('Setting the word …') }}</p>
    <div class="fonts">
      <button
        v-for="w in words"
        :key="w.font"
        class="plain-button font"
        :disabled="!w.path || Boolean(w.missing)"
        @click="emit('pick', w, text.trim())"
      >
        <span class="picture"><PathPicture v-if="w.path" :path="w.path" :box="w.box" /></span>
        <strong><span class="visually-hidden">{{ $t('“{text}” in', { text }) }} </span>{{ w.title }}</strong>
        <span v-if="w.missing" class="missing">{{ $t('has no {letters}', { letters: w.missing.split('').join(' ') }) }}</span>
        <span v-else class="soft">{{ w.islands ? $t('counters make islands') : $t('no islands') }}</span>
      </button>
    </div>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 8px;
}
h3 {
  font-size: var(--size-text);
}
.word {
  width: 240px;
}
.fonts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 10px;
}
.font {
  display: grid;
  justify-items: center;
  gap: 2px;
  padding: 8px 6px;
  border: 1px solid var(--border);
  border-radius: 8px;
  text-align: center;
  font-size: var(--size-small);
}
.font:hover:enabled {
  border-color: var(--accent);
}
.font:disabled {
  cursor: default;
  opacity: 0.75;
}
.picture {
  width: 100%;
  height: 56px;
}
.soft {
  font-size: var(--size-figure);
}
.missing {
  color: var(--error);
  font-size: var(--size-figure);
}
</style>
