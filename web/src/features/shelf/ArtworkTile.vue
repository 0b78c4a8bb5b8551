<script setup lang="ts">
/** An artwork on the shelf: its picture, size as read, tags, uses, and what can be done. */
import type { Unit } from '@/shared/api/document'
import LayersPicture from '@/shared/components/LayersPicture.vue'
import { formatMeasures } from '@/shared/units/figures'
import type { ShelfArtwork } from '@/shared/shelf'
import { t } from '@/shared/words'

const props = defineProps<{ artwork: ShelfArtwork; unit: Unit }>()
const emit = defineEmits<{ act: [action: string]; tag: [tag: string] }>()

const openings = () => props.artwork.picture.layers.reduce((n, l) => n + l.openings, 0)
const used = () => {
  const n = props.artwork.uses
  return n === 0 ? t('in no design') : n === 1 ? t('in one design') : t('in {n} designs', { n })
}
</script>

<template>
  <article class="tile" :aria-label="artwork.name">
    <div class="picture"><LayersPicture :layers="artwork.picture.layers" :box="artwork.picture.box" /></div>
    <div class="words">
      <h2 :title="artwork.name">{{ artwork.name }}</h2>
      <ElDropdown trigger="click" @command="(c: string) => emit('act', c)">
        <button class="plain-button more" :aria-label="$t('More for {name}', { name: artwork.name })">···</button>
        <template #dropdown>
          <ElDropdownMenu v-if="artwork.binned">
            <ElDropdownItem command="restore">{{ $t('Put back on the shelf') }}</ElDropdownItem>
            <ElDropdownItem command="delete">{{ $t('Delete for good …') }}</ElDropdownItem>
          </ElDropdownMenu>
          <ElDropdownMenu v-else>
            <ElDropdownItem command="start">{{ $t('Start a card with it') }}</ElDropdownItem>
            <ElDropdownItem command="rename">{{ $t('Rename …') }}</ElDropdownItem>
            <ElDropdownItem command="tags">{{ $t('Tags …') }}</ElDropdownItem>
            <ElDropdownItem command="replace">{{ $t('Replace by a new file …') }}</ElDropdownItem>
            <ElDropdownItem command="uses" :disabled="!artwork.uses">{{ $t('Where it is used …') }}</ElDropdownItem>
            <ElDropdownItem command="bin" divided>{{ $t('Put in the bin') }}</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
    </div>
    <p class="figure soft">{{ $t('{size} as read', { size: formatMeasures([artwork.width, artwork.height], 'mm', unit) }) }}</p>
    <p class="soft small">
      {{ artwork.picture.layers.length === 1 ? $t('one layer') : $t('{n} layers', { n: artwork.picture.layers.length }) }}{{ openings() === 1 ? $t(', one opening') : openings() ? $t(', {openings} openings', { openings: openings() }) : '' }}, {{ used() }}
    </p>
    <p v-if="artwork.tags.length" class="tags">
      <button v-for="tag in artwork.tags" :key="tag" class="plain-button tag" @click="emit('tag', tag)">{{ tag }}</button>
    </p>
  </article>
</template>

<style scoped>
.tile {
  display: grid;
  align-content: start;
  gap: 2px;
  padding: 12px;
  border: 1px solid var(--border);
  border-radius: 10px;
  background: var(--surface);
  min-width: 0;
}
.picture {
  height: 132px;
  margin-bottom: 6px;
}
.words {
  display: flex;
  align-items: center;
  gap: 8px;
}
h2 {
  flex: 1;
  min-width: 0;
  font-size: var(--size-body);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.more {
  padding: 0 6px;
  font-weight: 700;
  color: var(--text-soft);
}
.figure,
.small {
  font-size: var(--size-small);
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-top: 4px;
}
.tag {
  padding: 0 8px;
  border-radius: 9px;
  background: var(--paper-2);
  font-size: var(--size-figure);
  line-height: 18px;
}
.tag:hover {
  background: var(--paper-3);
}
</style>
