/**
 * `v-arrows` on a group of choices (radios, tabs, or buttons of a toolbar): arrows go from one to the next as
 * they lie on the screen, Home and End to the first and last; in a group of choices what is gone to is chosen,
 * and Tab goes to the chosen one alone.
 */
import type { Directive } from 'vue'

const CHOICES = '[role="radio"], [role="tab"]'
const ALL = `${CHOICES}, button:not([role])`

const itemsOf = (group: HTMLElement) =>
  [...group.querySelectorAll<HTMLElement>(group.querySelector(CHOICES) ? CHOICES : ALL)].filter(
    (e) => !(e as HTMLButtonElement).disabled && e.getAttribute('aria-disabled') !== 'true',
  )
const isChosen = (e: HTMLElement) => e.getAttribute('aria-checked') === 'true' || e.getAttribute('aria-selected') === 'true'

/** Of boxes in reading order, the one that an arrow leads to from the one with that number. */
export function towards(boxes: readonly { left: number; top: number; width: number; height: number }[], from: number, key: string): number {
  const last = boxes.length - 1
  const around = (n: number) => (n < 0 ? last : n > last ? 0 : n)
  if (key === 'ArrowRight') return around(from + 1)
  if (key === 'ArrowLeft') return around(from - 1)
  if (key === 'Home') return 0
  if (key === 'End') return last
  const here = boxes[from]!
  const sign = key === 'ArrowDown' ? 1 : -1
  const middle = (b: (typeof boxes)[number]) => b.left + b.width / 2
  const beyond = boxes
    .map((b, i) => ({ i, rows: (b.top - here.top) * sign, aside: Math.abs(middle(b) - middle(here)) }))
    .filter((b) => b.rows > here.height / 2)
  // one row: there is nothing above or below
  if (!beyond.length) return boxes.every((b) => Math.abs(b.top - here.top) < here.height / 2) ? around(from + sign) : from
  const row = Math.min(...beyond.map((b) => b.rows))
  return beyond.filter((b) => b.rows < row + here.height / 2).sort((a, b) => a.aside - b.aside)[0]!.i
}

function rove(group: HTMLElement) {
  const items = itemsOf(group)
  if (!items[0]?.matches(CHOICES)) return
  const chosen = items.find(isChosen) ?? items[0]
  for (const item of items) item.tabIndex = item === chosen ? 0 : -1
}

function key(event: KeyboardEvent) {
  if (!/^(Arrow(Left|Right|Up|Down)|Home|End)$/.test(event.key) || event.altKey || event.ctrlKey || event.metaKey) return
  const group = event.currentTarget as HTMLElement
  const items = itemsOf(group)
  const from = items.indexOf(event.target as HTMLElement)
  if (from < 0) return
  event.preventDefault()
  event.stopPropagation()
  const to = items[towards(items.map((i) => i.getBoundingClientRect()), from, event.key)]!
  if (to === event.target) return
  to.focus()
  if (to.matches(CHOICES)) to.click()
}

export const arrows: Directive<HTMLElement> = {
  mounted(group) {
    rove(group)
    group.addEventListener('keydown', key)
  },
  updated: rove,
}
