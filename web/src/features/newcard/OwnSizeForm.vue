<script setup lang="ts">
import { reactive, ref, watch } from 'vue'
import type { CardSize, Unit } from '@/shared/api/document'
import LengthInput from '@/shared/components/LengthInput.vue'
import { ownEnvelope } from '@/shared/cardSize'
import { t } from '@/shared/words'

const SLACK = 2

defineProps<{ unit: Unit }>()
const emit = defineEmits<{ close: []; take: [size: CardSize] }>()
const own = reactive({ name: t('Own size'), width: 105, height: 148 })
const envelope = reactive(ownEnvelope(own, SLACK))
const hasEnvelope = ref(true)
// it follows the card as long as nobody has given it measures of its own
const follows = ref(true)
watch(own, () => follows.value && Object.assign(envelope, ownEnvelope(own, SLACK)))

function take() {
  emit('take', {
    name: own.name.trim() || t('Own size'),
    width: own.width,
    height: own.height,
    envelope: hasEnvelope.value ? { ...envelope } : null,
  })
}
</script>

<template>
  <ElDialog :model-value="true" :title="$t('Own measures')" width="440" @close="emit('close')">
    <div class="form">
      <label><span>{{ $t('Name') }}</span><ElInput v-model="own.name" maxlength="60" /></label>
      <div class="pair">
        <label><span>{{ $t('Card, wide') }}</span><LengthInput v-model="own.width" :unit="unit" :label="$t('Card width')" :min="10" :max="1000" /></label>
        <label><span>{{ $t('Card, high') }}</span><LengthInput v-model="own.height" :unit="unit" :label="$t('Card height')" :min="10" :max="1000" /></label>
      </div>
      <ElCheckbox v-model="hasEnvelope">{{ $t('It goes in an envelope') }}</ElCheckbox>
      <div v-if="hasEnvelope" class="pair">
        <label><span>{{ $t('Envelope inside, wide') }}</span><LengthInput v-model="envelope.width" @update:model-value="follows = false" :unit="unit" :label="$t('Envelope width')" :min="10" :max="1000" /></label>
        <label><span>{{ $t('Envelope inside, high') }}</span><LengthInput v-model="envelope.height" @update:model-value="follows = false" :unit="unit" :label="$t('Envelope height')" :min="10" :max="1000" /></label>
      </div>
    </div>
    <template #footer>
      <ElButton @click="emit('close')">{{ $t('Cancel') }}</ElButton>
      <ElButton type="primary" @click="take">{{ $t('Use this size') }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 14px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
label span {
  display: block;
  font-size: var(--size-text);
  color: var(--text-soft);
}
</style>
