<script setup lang="ts">
/** Play, pause, stop, a place in time, and how fast. */
import type { usePlaying } from './usePlaying'
import { formatTime } from './formats'

const props = defineProps<{ play: ReturnType<typeof usePlaying>; end: number; now?: string }>()
const seek = (value: number | number[]) => props.play.seek(Number(value))
const hurry = (value: unknown) => props.play.hurry(Number(value))
const SPEEDS = [1, 5, 20, 100]
</script>

<template>
  <div class="bar" role="toolbar" :aria-label="$t('Playing')">
    <ElButton size="small" @click="play.playing.value ? play.pause() : play.play()">{{ play.playing.value ? $t('Pause') : $t('Play') }}</ElButton>
    <ElButton size="small" @click="play.stop()">{{ $t('Stop') }}</ElButton>
    <ElSlider :model-value="play.share.value" @update:model-value="seek" :show-tooltip="false" :step="0.1" :aria-label="$t('Place in time')" class="time" />
    <span class="figure">{{ $t('{at} of {end}', { at: formatTime(play.at.value), end: formatTime(end) }) }}</span>
    <span class="soft now">{{ now }}</span>
    <ElRadioGroup :model-value="play.speed.value" @update:model-value="hurry" size="small" :aria-label="$t('Speed')">
      <ElRadioButton v-for="s in SPEEDS" :key="s" :value="s">{{ s }}×</ElRadioButton>
    </ElRadioGroup>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 44px;
  padding: 4px 14px;
  border-top: 1px solid var(--border);
  background: var(--surface);
  font-size: var(--size-text);
}
.bar > :deep(.el-button + .el-button) {
  margin-left: 0;
}
.time {
  flex: 1;
  min-width: 80px;
}
.now {
  width: 92px;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
</style>
