/** A time in seconds that runs, at a speed, up to an end. */
import { useRafFn } from '@vueuse/core'
import { computed, ref, toValue, watch, type MaybeRefOrGetter } from 'vue'

export function usePlaying(end: MaybeRefOrGetter<number>, first = 20) {
  const at = ref(0)
  const speed = ref(first)
  const { isActive, pause, resume } = useRafFn(
    ({ delta }) => {
      at.value = Math.min(toValue(end), at.value + (Math.min(delta, 100) / 1000) * speed.value)
      if (at.value >= toValue(end)) pause()
    },
    { immediate: false },
  )
  function play() {
    if (at.value >= toValue(end)) at.value = 0
    resume()
  }
  function stop() {
    pause()
    at.value = 0
  }
  watch(() => toValue(end), stop)
  const share = computed(() => (toValue(end) ? (100 * at.value) / toValue(end) : 0))
  /** To a place in time, in per cent. */
  const seek = (percent: number) => (at.value = (percent / 100) * toValue(end))
  const hurry = (times: number) => (speed.value = times)
  return { at, speed, share, playing: isActive, play, pause, stop, seek, hurry }
}
