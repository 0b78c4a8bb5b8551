<script setup lang="ts">
/** The patterns of papers at true size, as fills for an SVG whose units are mm: `url(#name-n)` is the nth paper's. */
import type { Paper } from '@/shared/api/document'

defineProps<{ papers: readonly Paper[]; name: string }>()
</script>

<template>
  <defs>
    <template v-for="(p, n) in papers" :key="p.id">
      <pattern
        v-if="p.pattern !== 'none'"
        :id="`${name}-${n}`"
        :width="p.pattern === 'checks' ? 2 * p.pitch : p.pitch"
        :height="p.pattern === 'checks' ? 2 * p.pitch : p.pitch"
        patternUnits="userSpaceOnUse"
        :patternTransform="`rotate(${p.pattern_turn})`"
      >
        <rect :width="2 * p.pitch" :height="2 * p.pitch" :fill="p.outside" />
        <g :fill="p.pattern_colour">
          <rect v-if="p.pattern === 'stripes'" :width="p.pitch / 2" :height="p.pitch" />
          <circle v-else-if="p.pattern === 'dots'" :cx="p.pitch / 2" :cy="p.pitch / 2" :r="p.pitch * 0.22" />
          <template v-else-if="p.pattern === 'checks'">
            <rect :width="p.pitch" :height="p.pitch" />
            <rect :x="p.pitch" :y="p.pitch" :width="p.pitch" :height="p.pitch" />
          </template>
          <rect v-else :y="p.pitch * 0.44" :width="p.pitch" :height="p.pitch * 0.12" />
        </g>
      </pattern>
    </template>
  </defs>
</template>
