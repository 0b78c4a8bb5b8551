<script setup lang="ts">
defineProps<{ large?: boolean }>()
</script>

<template>
  <span class="brand" :class="{ large }">
    <svg viewBox="0 0 24 24" aria-hidden="true">
      <path d="M3 20 12 3v17z" class="blade" />
      <path d="M13.6 3 21 20h-7.4z" class="mirrored" />
    </svg>
    Stileblade
  </span>
</template>

<style scoped>
.brand {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  font-weight: 700;
  font-size: var(--size-heading);
  letter-spacing: -0.01em;
}
svg {
  width: 22px;
  height: 22px;
}
.large {
  font-size: var(--size-title);
}
.large svg {
  width: 32px;
  height: 32px;
}
.blade {
  fill: var(--ink-0);
}
.mirrored {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.4;
}
</style>
