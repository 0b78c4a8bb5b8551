import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { DesignData } from '@/shared/api/document'
import { CommandLog, type Later } from './commandLog'
import { useDocument } from './useDocument'

type Words = readonly string[]
const add = (word: string) => (now: Words) => [...now, word]

/** A list of what is shown, each a step to undo. */
function listed(start: Words) {
  const shown: Words[] = [start]
  const log = new CommandLog<Words>({
    now: () => shown.at(-1)!,
    put: (next) => void shown.push(next),
    replace: (count, documents) => void shown.splice(shown.length - count, count, ...documents),
  })
  log.reset(start)
  return { log, shown, now: () => shown.at(-1)! }
}
/** A question that takes so long; its answer says what was there when it was asked. */
const slow = (word: string, ms: number, meanwhile?: (now: Words) => Words): Later<Words, string> => ({
  ask: (now) => new Promise((done) => setTimeout(() => done(`${word} on ${now.join(' ')}`), ms)),
  apply: (now, answer) => [...now, `(${answer})`],
  ...(meanwhile ? { meanwhile } : {}),
})

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())
const pass = async (ms: number) => {
  await vi.advanceTimersByTimeAsync(ms)
  await flushPromises()
}

describe('CommandLog', () => {
  it('shows what is done meanwhile at once, and does it again on top of the answer', async () => {
    const { log, shown, now } = listed(['card'])
    log.later(slow('size', 100))
    log.change(add('name'))
    expect(now()).toEqual(['card', 'name'])
    await pass(100)
    expect(now()).toEqual(['card', '(size on card)', 'name'])
    expect(shown).toEqual([['card'], ['card', '(size on card)'], now()])
  })

  it('asks a second question of what the first has left', async () => {
    const { log, now } = listed(['card'])
    log.later(slow('width', 100, add('wide')))
    log.later(slow('height', 10, add('high')))
    expect(now()).toEqual(['card', 'wide', 'high'])
    await pass(110)
    expect(now()).toEqual(['card', '(width on card)', '(height on card (width on card))'])
  })

  it('leaves everything else where a question fails', async () => {
    const { log, now } = listed(['card'])
    log.later({ ask: () => Promise.resolve(null), apply: add('never'), meanwhile: add('shown') })
    log.change(add('name'))
    await pass(1)
    expect(now()).toEqual(['card', 'name'])
  })

  it('forgets answers to a document that is no longer there', async () => {
    const { log, shown, now } = listed(['card'])
    log.later(slow('size', 100))
    shown.push(['other'])
    log.reset(['other'])
    await pass(200)
    expect(now()).toEqual(['other'])
  })

  it('takes back the last command, be it asked or waiting', async () => {
    const { log, now } = listed(['card'])
    log.later(slow('size', 100, add('wide')))
    log.change(add('name'))
    expect(log.takeBack()).toBe(true)
    expect(now()).toEqual(['card', 'wide'])
    expect(log.takeBack()).toBe(true)
    expect(now()).toEqual(['card'])
    await pass(200)
    expect(now()).toEqual(['card'])
    expect(log.takeBack()).toBe(false)
  })

  it('ends as if each command had been waited for, whatever the answers take', async () => {
    // a linear congruential generator: the same 300 runs each time
    let seed = 7
    const chance = (most: number) => (seed = (seed * 1103515245 + 12345) % 2147483648) % most
    for (let run = 0; run < 300; run += 1) {
      const { log, shown, now } = listed(['card'])
      const onebyone = listed(['card'])
      for (let n = 0; n < 2 + chance(8); n += 1) {
        const word = `w${n}`
        if (chance(2)) {
          const meanwhile = chance(2) ? add(`${word} soon`) : undefined
          log.later(slow(word, chance(2000), meanwhile))
          onebyone.log.later(slow(word, 0, meanwhile))
        } else {
          log.change(add(word))
          onebyone.log.change(add(word))
        }
        await vi.advanceTimersByTimeAsync(1)
        await pass(chance(300))
      }
      await pass(30_000)
      expect(now()).toEqual(onebyone.now())
      expect(shown).toEqual(onebyone.shown)
    }
  })
})

describe('useDocument with answers that come later', () => {
  const named = (name: string) => ({ name }) as DesignData
  const renamed = (ms: number): Later<DesignData, string> => ({
    ask: (now) => new Promise((done) => setTimeout(() => done(`${now.name} answered`), ms)),
    apply: (now, name) => ({ ...now, name }),
  })
  function opened() {
    const open = useDocument()
    open.put(named('card'), { anew: true })
    return { open, name: () => open.document.value!.name }
  }

  it('keeps an answer back while something is dragged', async () => {
    const { open, name } = opened()
    open.later(renamed(10))
    open.preview((now) => ({ ...now, name: `${now.name} dragged` }))
    await pass(20)
    expect(name()).toBe('card dragged')
    open.change((now) => ({ ...now, name: `${now.name} dropped` }))
    expect(name()).toBe('card answered dropped')
    open.undo()
    expect(name()).toBe('card answered')
    open.undo()
    expect(name()).toBe('card')
    open.redo()
    expect(name()).toBe('card answered')
  })

  it('is undone while it waits', async () => {
    const { open, name } = opened()
    open.later(renamed(10))
    expect(open.waiting.value).toBe(true)
    expect(open.canUndo.value).toBe(true)
    open.undo()
    await pass(20)
    expect(name()).toBe('card')
    expect(open.canUndo.value).toBe(false)
  })
})
