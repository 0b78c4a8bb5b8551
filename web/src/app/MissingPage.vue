<script setup lang="ts">
import { RouterLink } from 'vue-router'
</script>

<template>
  <main class="missing">
    <h1>{{ $t('There is nothing at this address.') }}</h1>
    <RouterLink to="/">{{ $t('Back to the designs') }}</RouterLink>
  </main>
</template>

<style scoped>
.missing {
  padding: 80px;
  display: grid;
  gap: 12px;
}
h1 {
  font-size: var(--size-title);
}
</style>
