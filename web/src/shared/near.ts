/** Whether an element is on the screen or near to it: what is far away need not be drawn yet. */
import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'

const AHEAD = '700px'
const waiting = new WeakMap<Element, Ref<boolean>>()
let watcher: IntersectionObserver | undefined

function observer(): IntersectionObserver {
  watcher ??= new IntersectionObserver(
    (entries) => {
      for (const entry of entries) {
        if (!entry.isIntersecting) continue
        const near = waiting.get(entry.target)
        if (near) near.value = true
        watcher!.unobserve(entry.target)
      }
    },
    { rootMargin: AHEAD },
  )
  return watcher
}

/** True from when it first came near; one watcher is for all. */
export function useNear(element: Readonly<Ref<Element | null>>) {
  const near = ref(typeof IntersectionObserver === 'undefined')
  let seen: Element | null = null
  onMounted(() => {
    seen = element.value
    if (near.value || !seen) return
    waiting.set(seen, near)
    observer().observe(seen)
  })
  onBeforeUnmount(() => seen && watcher?.unobserve(seen))
  return near
}
