<script setup lang="ts">
/** A paper as a small sheet, a corner turned up to its inside. */
import type { Paper } from '@/shared/api/document'

defineProps<{ paper: Paper }>()
</script>

<template>
  <svg viewBox="0 0 36 28" aria-hidden="true">
    <rect width="36" height="28" rx="3" :fill="paper.outside" />
    <path d="M36 12v13a3 3 0 0 1-3 3H18z" :fill="paper.inside" />
  </svg>
</template>
