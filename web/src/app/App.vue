<script setup lang="ts">
import { watch } from 'vue'
import { RouterView, useRoute } from 'vue-router'
import { parts } from '@/shared/words'
import { HelpLayer } from '@/features/help'

const route = useRoute()

/** Where a page is another one, the keyboard goes on in it and does not fall to the window. */
const PATIENCE_MS = 4000
watch(
  () => route.path,
  () => {
    const until = performance.now() + PATIENCE_MS
    const look = () => {
      const main = document.querySelector<HTMLElement>('main')
      if (document.activeElement && document.activeElement !== document.body) return
      if (main) {
        main.tabIndex = -1
        main.focus({ preventScroll: true })
      } else if (performance.now() < until) requestAnimationFrame(look)
    }
    requestAnimationFrame(look)
  },
)
</script>

<template>
  <ElConfigProvider :locale="parts">
    <RouterView :key="route.path" />
    <HelpLayer />
  </ElConfigProvider>
</template>
