<script setup lang="ts">
/** All ways of folding, each as a picture that moves when it is pointed at or chosen. */
import { ref } from 'vue'
import { useCatalogue } from '@/shared/catalogue'
import WayPicture from './WayPicture.vue'

defineProps<{ modelValue: string }>()
const emit = defineEmits<{ 'update:modelValue': [kind: string] }>()
const catalogue = useCatalogue()
const pointed = ref('')
</script>

<template>
  <div v-arrows class="ways" role="radiogroup" :aria-label="$t('Way of folding')">
    <button
      v-for="w in catalogue.data?.ways ?? []"
      :key="w.kind"
      class="plain-button way"
      role="radio"
      :aria-checked="modelValue === w.kind"
      :class="{ chosen: modelValue === w.kind }"
      :title="w.description"
      @click="emit('update:modelValue', w.kind)"
      @pointerenter="pointed = w.kind"
      @pointerleave="pointed = ''"
      @focus="pointed = w.kind"
      @blur="pointed = ''"
    >
      <span class="picture"><WayPicture :pictures="w.pictures" :rest="w.rest" :playing="pointed === w.kind" /></span>
      <strong>{{ w.title }}</strong>
    </button>
  </div>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(90px, 1fr));
  gap: 8px;
}
.way {
  display: grid;
  gap: 2px;
  padding: 5px 4px 4px;
  border: 1.5px solid var(--border);
  border-radius: 8px;
  background: var(--surface);
  text-align: center;
  font-size: var(--size-small);
  line-height: 1.2;
}
.way strong {
  font-weight: 550;
}
.way:hover {
  border-color: var(--border-strong);
}
.chosen {
  border-color: var(--accent);
  box-shadow: 0 0 0 1px var(--accent);
}
.picture {
  height: 56px;
}
</style>
