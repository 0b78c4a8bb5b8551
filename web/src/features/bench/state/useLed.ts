/** What is done at the bench goes on the course, where somebody is in it. */
import { watch, type Ref } from 'vue'
import type { StepData } from '@/shared/api/document'
import { useCourse } from '@/features/help'

export function useLed(searching: Ref<boolean>, steps: Readonly<Ref<readonly StepData[]>>, step: Readonly<Ref<StepData | null>>) {
  const course = useCourse()
  watch(searching, (now) => now && course.reach('searched'))
  watch(() => steps.value.length, (now, before) => before > 0 && now > before && course.reach('step'))
  const lap = () => (step.value && 'lap' in step.value ? { of: step.value.id, lap: step.value.lap } : null)
  watch(lap, (now, before) => now && before?.of === now.of && before.lap !== now.lap && course.reach('lap'))
}
