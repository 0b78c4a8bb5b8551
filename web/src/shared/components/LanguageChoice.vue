<script setup lang="ts">
/** The language that all is said in; each is called as those call it who speak it. */
import { choose, language, LANGUAGES, type Language } from '@/shared/words'

const name = language()
</script>

<template>
  <ElSelect :model-value="name" size="small" class="language" :aria-label="$t('Language')" @update:model-value="(v: Language) => choose(v)">
    <ElOption v-for="(title, key) in LANGUAGES" :key="key" :value="key" :label="title" :lang="key" />
  </ElSelect>
</template>

<style scoped>
.language {
  width: 104px;
  flex: none;
}
</style>
