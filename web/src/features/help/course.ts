/**
 * A first card, led by hand: what to do next, on a real card, gone on with by doing it. Where somebody is in
 * it is kept in the browser, so that it can be left and taken up again.
 */
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { t } from '@/shared/words'

/** What is done on the way, told by the screens on which it is done. */
export type Done = 'new' | 'size' | 'begun' | 'built' | 'lap' | 'searched' | 'step' | 'checks' | 'saved'
export interface Lesson {
  done: Done
  /** The screen on which it is done. */
  where: 'designs' | 'new' | 'bench'
  title: string
  says: string
}

export const LESSONS: readonly Lesson[] = [
  { done: 'new', where: 'designs', title: t('Begin a card'), says: t('Press “New card” at the head of this page.') },
  { done: 'size', where: 'new', title: t('Choose its size'), says: t('The size is that of the closed card, in its envelope. Press “5 in square”.') },
  { done: 'begun', where: 'new', title: t('Begin with a figure'), says: t('Under “Begin with” press the second picture: the heart is mirrored at the fold, with the least lap that holds.') },
  { done: 'built', where: 'new', title: t('Build it'), says: t('The picture shows the card with its lap and hinge. Press “Build it”.') },
  { done: 'lap', where: 'bench', title: t('Make the hinge longer'), says: t('In the strip at the foot press “Mirror”, then drag the orange line, or type a larger lap. The hinge among the readings grows with it.') },
  { done: 'searched', where: 'bench', title: t('Look for a step'), says: t('Press “Add a step”, or the key /, and type what you want: round window 30.') },
  { done: 'step', where: 'bench', title: t('Add it'), says: t('Press Enter. The window is in hand now: drag it, its corners size it, its gaps can be typed over.') },
  { done: 'checks', where: 'bench', title: t('Look at the checks'), says: t('Open “Checks” at the right: what would go wrong is said there, with a picture, and often with a mend to press.') },
  { done: 'saved', where: 'bench', title: t('Take the files'), says: t('Press “Cut files”, choose a format, and save. What you cut is exactly what you see.') },
]

const at = useLocalStorage<number | null>('stileblade.course', null)

export function useCourse() {
  const lesson = computed(() => (at.value === null ? null : (LESSONS[at.value] ?? null)))
  const finished = computed(() => at.value !== null && at.value >= LESSONS.length)
  const begin = () => (at.value = 0)
  const leave = () => (at.value = null)
  const go = (by: number) => at.value !== null && (at.value = Math.max(0, Math.min(LESSONS.length, at.value + by)))
  /** Something was done: the course goes on where that was the next thing, or one that follows it on the same screen. */
  function reach(done: Done) {
    const now = at.value
    if (now === null) return
    const number = LESSONS.findIndex((l, i) => i >= now && l.done === done)
    if (number >= 0 && LESSONS[number]!.where === LESSONS[now]!.where) at.value = number + 1
  }
  return { at, lesson, finished, begin, leave, go, reach }
}
