<script setup lang="ts">
import { useHelp } from './useHelp'

const { open } = useHelp()
</script>

<template>
  <ElButton text class="help" :title="$t('Keys and words of the trade (?)')" :aria-label="$t('Help')" @click="open = true">?</ElButton>
</template>

<style scoped>
.help {
  min-width: 32px;
  padding: 0 8px;
  font-weight: 700;
}
</style>
