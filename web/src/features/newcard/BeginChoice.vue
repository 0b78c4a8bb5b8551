<script setup lang="ts">
/** The ways to begin the card, each drawn on the card that is chosen. */
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import PathPicture from '@/shared/components/PathPicture.vue'
import type { Beginning } from './useBeginnings'

defineProps<{ ways: readonly Beginning[] }>()
const chosen = defineModel<string>({ required: true })
</script>

<template>
  <div v-arrows class="ways" role="radiogroup" :aria-label="$t('How to begin')">
    <button
      v-for="w in ways"
      :key="w.key"
      class="plain-button way"
      role="radio"
      :aria-checked="chosen === w.key"
      :aria-disabled="!w.card"
      :class="{ chosen: chosen === w.key, off: !w.card }"
      :title="w.why || w.about"
      @click="chosen = w.key"
    >
      <span class="picture">
        <FoldedPicture v-if="w.card?.folded && w.card.flat?.folds.length" :picture="w.card.folded" />
        <PathPicture v-else-if="w.card?.flat" :path="w.card.flat.path" :box="w.card.flat.box" />
        <span v-else class="soft" aria-hidden="true">–</span>
      </span>
      <strong>{{ w.title }}</strong>
    </button>
  </div>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 8px;
}
.way {
  display: grid;
  justify-items: center;
  gap: 3px;
  padding: 6px 4px;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-small);
  line-height: 1.2;
  text-align: center;
}
.way:hover {
  border-color: var(--border-strong);
}
.way strong {
  font-weight: 600;
}
.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
  background: var(--accent-pale);
}
.off strong {
  color: var(--text-soft);
  font-weight: 500;
}
.picture {
  width: 100%;
  height: 62px;
  display: grid;
  place-items: center;
}
</style>
