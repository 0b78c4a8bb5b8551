<script setup lang="ts">
/** The sizes as tiles, each card in its envelope, all to one scale. */
import { computed } from 'vue'
import type { CardSize, Unit } from '@/shared/api/document'
import { formatMeasures } from '@/shared/units/figures'
import { called } from '@/shared/words'
import SizePicture from './SizePicture.vue'

defineOptions({ inheritAttrs: false })
const props = defineProps<{ sizes: readonly CardSize[]; turned: boolean; unit: Unit }>()
const size = defineModel<CardSize | null>({ required: true })
const emit = defineEmits<{ own: [] }>()
const ROOM = 60

const scale = computed(() => {
  const longest = Math.max(...props.sizes.map((s) => Math.max(s.height, s.width, s.envelope?.height ?? 0, s.envelope?.width ?? 0)), 1)
  return ROOM / longest
})
</script>

<template>
  <p v-if="!sizes.length" class="soft" aria-busy="true">{{ $t('Fetching the sizes …') }}</p>
  <div v-arrows v-bind="$attrs" class="grid" role="radiogroup">
    <button
      v-for="(s, i) in sizes"
      :key="i"
      class="plain-button tile"
      role="radio"
      :aria-checked="size === s"
      :class="{ chosen: size?.name === s.name && size?.width === s.width }"
      :title="`${called(s.name)}, ${s.envelope ? $t('in {name} envelope', { name: s.envelope.name ? called(s.envelope.name) : $t('its own') }) : $t('no envelope')}`"
      @click="size = s"
    >
      <SizePicture :size="s" :turned="turned" :scale="scale" :room="ROOM" />
      <strong>{{ called(s.name) }}</strong>
      <span class="figure soft">{{ formatMeasures([s.width, s.height], 'mm', unit).replace(/ (mm|in)$/, '') }}</span>
    </button>
    <button class="plain-button tile own" @click="emit('own')">
      <span class="plus" aria-hidden="true">+</span>
      <strong>{{ $t('Own measures') }}</strong>
    </button>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(82px, 1fr));
  gap: 8px;
}
.tile {
  display: grid;
  justify-items: center;
  padding: 5px 2px 4px;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-small);
  line-height: 1.25;
  text-align: center;
  min-width: 0;
}
.tile strong {
  font-weight: 600;
}
.tile .figure {
  font-size: 10.5px;
  letter-spacing: -0.3px;
}
.tile:hover {
  border-color: var(--border-strong);
}
.own {
  align-content: center;
  border-style: dashed;
  border-color: var(--border-strong);
}
.plus {
  font-size: var(--size-title);
}
.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
  background: var(--accent-pale);
}
</style>
