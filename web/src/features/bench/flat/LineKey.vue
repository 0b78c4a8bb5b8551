<script setup lang="ts">
/** What the lines of the flat view mean: told apart by dash and weight as well as by colour. */
import { t } from '@/shared/words'
const LINES = [
  { mark: 'outer', word: t('cut, outline and windows') },
  { mark: 'slit', word: t('cut through, nothing taken out') },
  { mark: 'mountain', word: t('fold towards you') },
  { mark: 'valley', word: t('fold away from you') },
  { mark: 'perforate', word: t('perforated') },
  { mark: 'score', word: t('scored, not folded') },
  { mark: 'draw', word: t('drawn with a pen') },
  { mark: 'stitch', word: t('stitches') },
  { mark: 'prick', word: t('pricked, for a thread') },
]
</script>

<template>
  <dl class="key" :aria-label="$t('Key to the lines')">
    <template v-for="l in LINES" :key="l.mark">
      <dt><svg width="52" height="12" aria-hidden="true"><line x1="2" x2="50" y1="6" y2="6" :class="l.mark" /></svg></dt>
      <dd>{{ l.word }}</dd>
    </template>
  </dl>
</template>

<style scoped>
.key {
  position: absolute;
  left: 34px;
  bottom: 44px;
  z-index: 2;
  display: grid;
  grid-template-columns: auto auto;
  gap: 3px 10px;
  margin: 0;
  padding: 9px 13px;
  border: 1px solid var(--border-strong);
  border-radius: 10px;
  background: var(--surface);
  font-size: var(--size-small);
}
dd {
  margin: 0;
}
line {
  stroke: var(--line-fold);
  stroke-width: 2.4;
}
.outer {
  stroke: var(--line-cut);
  stroke-width: 1.6;
}
.slit {
  stroke: var(--line-cut);
  stroke-width: 2.6;
  stroke-dasharray: 14 2;
}
.mountain {
  stroke-dasharray: 11 3 2 3;
}
.valley {
  stroke-dasharray: 6 4;
}
.perforate {
  stroke-width: 3;
  stroke-dasharray: 4 2.5;
}
.score {
  stroke-width: 1.4;
}
.draw,
.stitch {
  stroke: var(--line-draw);
  stroke-width: 1.4;
}
.prick {
  stroke: var(--line-cut);
  stroke-width: 3;
  stroke-dasharray: 0.1 8;
  stroke-linecap: round;
}
.stitch {
  stroke-width: 2.4;
  stroke-dasharray: 7 5;
}
</style>
