<script setup lang="ts">
/** Says that a file may be let go here. */
defineProps<{ over: boolean; text?: string }>()
</script>

<template>
  <div v-if="over" class="drop-hint" aria-live="polite">
    <p>{{ text ?? $t('Let go to read the drawing or font') }}</p>
  </div>
</template>

<style scoped>
.drop-hint {
  position: fixed;
  inset: 12px;
  z-index: 3000;
  display: grid;
  place-content: center;
  border: 2px dashed var(--accent);
  border-radius: 14px;
  background: rgb(255 253 248 / 82%);
  font-size: var(--size-title);
  font-weight: 600;
  pointer-events: none;
}
</style>
