<script setup lang="ts">
/** Before there is anything to show: it is being computed, or cannot be, and what can be done then. */
defineProps<{ trouble: string; slow: boolean; stopped: boolean }>()
const emit = defineEmits<{ stop: []; again: []; history: []; leave: [] }>()
</script>

<template>
  <div class="waiting" :aria-busy="!trouble && !stopped">
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <p v-else class="soft">{{ stopped ? $t('Stopped.') : $t('Laying out the card …') }}</p>
    <span v-if="trouble || slow || stopped">
      <ElButton v-if="slow" @click="emit('stop')">{{ $t('Stop') }}</ElButton>
      <ElButton v-else @click="emit('again')">{{ $t('Try again') }}</ElButton>
      <ElButton @click="emit('history')">{{ $t('Earlier versions') }}</ElButton>
      <ElButton text @click="emit('leave')">{{ $t('Back to the designs') }}</ElButton>
    </span>
  </div>
</template>

<style scoped>
.waiting {
  display: grid;
  height: 100%;
  place-content: center;
  justify-items: center;
  gap: 14px;
}
</style>
