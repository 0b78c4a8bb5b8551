<script setup lang="ts">
/** The card size that a template is built on: its own, or another one with its figures taken along or as they are. */
import { computed, ref, shallowRef } from 'vue'
import type { CardSize, DesignData, Unit } from '@/shared/api/document'
import { formatMeasures } from '@/shared/units/figures'
import { called } from '@/shared/words'
import SizeGrid from './SizeGrid.vue'

const props = defineProps<{ document: DesignData; sizes: readonly CardSize[]; unit: Unit; busy: boolean }>()
const emit = defineEmits<{ close: []; build: [size: CardSize, along: boolean]; own: [] }>()
const own = computed(() => props.document.card.size)
const same = (a: CardSize, b: CardSize) => a.name === b.name && a.width === b.width && a.height === b.height
const offered = computed(() => [own.value, ...props.sizes.filter((s) => !same(s, own.value))])
const size = shallowRef<CardSize | null>(own.value)
const along = ref(true)
const other = computed(() => size.value !== null && !same(size.value, own.value))
</script>

<template>
  <ElDialog :model-value="true" :title="$t('Start a card from {name}', { name: document.name })" width="720px" align-center @close="emit('close')">
    <div class="form">
      <p class="soft">{{ $t('It was made for {size}, {measures}. On which size is it built?', { size: called(own.name), measures: formatMeasures([own.width, own.height], 'mm', unit) }) }}</p>
      <SizeGrid v-model="size" :sizes="offered" :turned="document.card.turned" :unit="unit" :aria-label="$t('Size of the card')" @own="emit('own')" />
      <ElCheckbox v-model="along" :disabled="!other" :label="$t('Take figures along')" :title="$t('Figures with a size of their own are made larger or smaller with the card')" />
    </div>
    <template #footer>
      <ElButton @click="emit('close')">{{ $t('Cancel') }}</ElButton>
      <ElButton type="primary" :loading="busy" :disabled="!size" @click="size && emit('build', size, other && along)">{{ $t('Build it') }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
</style>
