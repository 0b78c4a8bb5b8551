<script setup lang="ts">
/** The figure that the card is begun with, and how it gets its size. */
import type { Unit } from '@/shared/api/document'
import LayersPicture from '@/shared/components/LayersPicture.vue'
import LengthInput from '@/shared/components/LengthInput.vue'
import type { PickedOutline } from '@/features/outlines'

defineProps<{ picked: PickedOutline; unit: Unit }>()
const fits = defineModel<boolean>('fits', { required: true })
const margin = defineModel<number>('margin', { required: true })
const emit = defineEmits<{ choose: [] }>()
</script>

<template>
  <div class="bar">
    <button class="plain-button which" @click="emit('choose')">
      <span class="picture"><LayersPicture :layers="picked.picture.layers" :box="picked.picture.box" /></span>
      <span><strong>{{ picked.title }}</strong><br /><span class="link">{{ $t('choose another …') }}</span></span>
    </button>
    <label class="size">
      <span>{{ $t('Its size') }}</span>
      <ElSelect v-model="fits" :aria-label="$t('Size of the figure')" size="small">
        <ElOption :value="true" :label="$t('as large as the card')" />
        <ElOption :value="false" :label="$t('its own')" />
      </ElSelect>
    </label>
    <label v-if="fits" class="margin" :title="$t('Left free on all sides of the closed card')">
      <span>{{ $t('Less all round') }}</span>
      <LengthInput v-model="margin" :unit="unit" :label="$t('Margin')" :min="0" :max="500" />
    </label>
  </div>
</template>

<style scoped>
.bar {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px 108px;
  gap: 12px;
  align-items: end;
}
.which {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr);
  gap: 8px;
  align-items: center;
  padding: 4px 8px;
  border: 1px solid var(--border-strong);
  border-radius: 8px;
  background: var(--surface);
  font-size: var(--size-text);
  line-height: 1.25;
  text-align: left;
}
.which strong {
  overflow-wrap: anywhere;
}
.link {
  color: var(--accent);
  font-size: var(--size-small);
}
.picture {
  width: 44px;
  height: 40px;
}
label > span {
  display: block;
  font-size: var(--size-small);
  color: var(--text-soft);
}
</style>
