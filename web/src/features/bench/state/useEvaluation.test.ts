import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, ref, shallowRef } from 'vue'
import type { DesignData } from '@/shared/api/document'
import { useEvaluation } from './useEvaluation'

interface Asked {
  name: string
  part: string
  known: string[]
  answer: () => void
  signal: AbortSignal
}
let asked: Asked[] = []
const picture = { path: 'M0 0Z', box: [0, 0, 1, 1], folds: [], perforated: [] }

let frame = Promise.resolve()
vi.mock('@/shared/painted', () => ({ painted: () => frame }))

vi.mock('@/shared/api/client', async (original) => ({
  ...(await original<object>()),
  client: {
    POST: (_: string, { body, signal }: { body: { document: DesignData; part: string; known: string[] }; signal: AbortSignal }) =>
      new Promise((resolve, reject) => {
        signal.addEventListener('abort', () => reject(new DOMException('ended', 'AbortError')))
        const { name } = body.document
        const data = {
          flat: body.part === 'rest' ? null : { path: name, folds: [name] },
          rest: body.part === 'flat' ? null : { closed: [name.length, 1], strip: [{ step: 's', key: name, picture }] },
        }
        const response = new Response(null, { status: 200 })
        asked.push({ name, part: body.part, known: body.known, signal, answer: () => resolve({ data, response }) })
      }),
  },
}))

const named = (name: string) => ({ name }) as Partial<DesignData> as DesignData

function started() {
  const document = shallowRef<DesignData | null>(named('first'))
  const step = ref('s')
  const scope = effectScope()
  const found = scope.run(() => useEvaluation(document, ref('base'), step))!
  return { document, step, ...found }
}
async function answerLast() {
  asked.at(-1)!.answer()
  await flushPromises()
}

beforeEach(() => {
  asked = []
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] })
})
afterEach(() => vi.useRealTimers())

it('asks for everything once, then for the flat view before the rest', async () => {
  const { document, outline, rest } = started()
  const shown = () => ({ path: outline.value, closed: rest.value?.closed })
  await answerLast()
  expect(asked.map((a) => a.part)).toEqual(['all'])
  expect(shown()).toEqual({ path: 'first', closed: [5, 1] })
  document.value = named('second')
  await flushPromises()
  await answerLast()
  // the flat view is new while the rest is still of the design before
  expect(shown()).toEqual({ path: 'second', closed: [5, 1] })
  await answerLast()
  expect(asked.map((a) => a.part)).toEqual(['all', 'flat', 'rest'])
  expect(shown()).toEqual({ path: 'second', closed: [6, 1] })
})

it('draws the outline of an edit first, and what is about it a frame later', async () => {
  const { document, step, outline, flat } = started()
  const shown = () => [outline.value, flat.value]
  await answerLast()
  let next = () => {}
  frame = new Promise((done) => (next = done))
  document.value = named('second')
  await flushPromises()
  await answerLast()
  expect(shown()).toEqual(['second', { path: 'first', folds: ['first'] }])
  expect(asked.map((a) => a.part)).toEqual(['all', 'flat'])
  next()
  await flushPromises()
  expect(shown()).toEqual(['second', { path: 'second', folds: ['second'] }])
  expect(asked.map((a) => a.part)).toEqual(['all', 'flat', 'rest'])
  await answerLast()
  // another step's view is another picture: nothing of the one before stays about it, though no frame comes
  frame = new Promise(() => {})
  step.value = 'other'
  document.value = named('third')
  await flushPromises()
  await answerLast()
  expect(shown()).toEqual(['third', { path: 'third', folds: ['third'] }])
  expect(asked.at(-1)).toMatchObject({ part: 'rest' })
  frame = Promise.resolve()
})

it('draws all of it at once where something newer is waiting', async () => {
  const { document, flat } = started()
  await answerLast()
  frame = new Promise(() => {})
  document.value = named('second')
  await flushPromises()
  document.value = named('third')
  await flushPromises()
  await answerLast()
  expect(flat.value).toEqual({ path: 'second', folds: ['second'] })
  frame = Promise.resolve()
})

it('asks for nothing more when it is stopped while the outline is being drawn', async () => {
  const { document, flat, busy, stop } = started()
  await answerLast()
  let next = () => {}
  frame = new Promise((done) => (next = done))
  document.value = named('second')
  await flushPromises()
  await answerLast()
  stop()
  next()
  await flushPromises()
  expect(asked.map((a) => a.part)).toEqual(['all', 'flat'])
  expect([flat.value, busy.value]).toEqual([{ path: 'second', folds: ['second'] }, false])
  frame = Promise.resolve()
})

it('has one request under way, and then only of the newest document', async () => {
  const { document } = started()
  await answerLast()
  for (const name of ['a', 'b', 'c']) {
    document.value = named(name)
    await flushPromises()
  }
  expect(asked).toHaveLength(2)
  await answerLast()
  await vi.advanceTimersByTimeAsync(30)
  expect(asked.map((a) => `${a.part} ${a.name}`)).toEqual(['all first', 'flat a', 'flat c'])
  await answerLast()
  await answerLast()
  expect(asked.map((a) => `${a.part} ${a.name}`).slice(-1)).toEqual(['rest c'])
})

it('rests while changes keep coming, for as long as the outcome took, and no longer than a pause', async () => {
  const { document } = started()
  await answerLast()
  document.value = named('a')
  await flushPromises()
  // an outcome that takes 80 ms, with a change every 10 ms: the next is asked for 80 ms later
  async function moving(ms: number) {
    for (let t = 0; t < ms; t += 10) {
      document.value = named(`at ${performance.now()}`)
      await vi.advanceTimersByTimeAsync(10)
    }
  }
  await moving(80)
  await answerLast()
  await moving(70)
  expect(asked).toHaveLength(2)
  await moving(20)
  expect(asked).toHaveLength(3)
  // the outcome comes at once, but changes pause 30 ms before it would have rested long enough
  await moving(80)
  document.value = named('last')
  await answerLast()
  await vi.advanceTimersByTimeAsync(25)
  expect(asked).toHaveLength(3)
  await vi.advanceTimersByTimeAsync(10)
  expect(asked.at(-1)).toMatchObject({ name: 'last', part: 'flat' })
})

it('keeps pictures and says which it has', async () => {
  const { document, pictures } = started()
  await answerLast()
  expect(pictures.get('first')).toEqual(picture)
  document.value = named('second')
  await flushPromises()
  await answerLast()
  expect(asked.at(-1)!.known).toEqual(['first'])
})

it('says after half a second that it takes long, and ends it when asked to', async () => {
  const { document, flat, slow, stopped, stop, busy } = started()
  await answerLast()
  document.value = named('heavy')
  await flushPromises()
  expect(slow.value).toBe(false)
  await vi.advanceTimersByTimeAsync(600)
  expect(slow.value).toBe(true)
  stop()
  await flushPromises()
  expect(asked.at(-1)!.signal.aborted).toBe(true)
  expect([slow.value, stopped.value, busy.value]).toEqual([false, true, false])
  expect(flat.value).toMatchObject({ path: 'first' })
})

it('does not wait for what takes long when there is something newer', async () => {
  const { document, stopped } = started()
  await answerLast()
  document.value = named('heavy')
  await flushPromises()
  await vi.advanceTimersByTimeAsync(600)
  document.value = named('light')
  await vi.advanceTimersByTimeAsync(600)
  expect(asked.map((a) => a.name).slice(-2)).toEqual(['heavy', 'light'])
  expect(asked.at(-2)!.signal.aborted).toBe(true)
  expect(stopped.value).toBe(false)
})

it('leaves the rest for something newer, but not for longer than a second', async () => {
  const { document } = started()
  await answerLast()
  document.value = named('a')
  await flushPromises()
  await answerLast()
  for (const name of ['b', 'c', 'd']) {
    expect(asked.at(-1)).toMatchObject({ part: 'rest' })
    document.value = named(name)
    await flushPromises()
    expect(asked.at(-2)!.signal.aborted).toBe(true)
    expect(asked.at(-1)).toMatchObject({ name, part: 'flat' })
    await answerLast()
    await vi.advanceTimersByTimeAsync(400)
  }
  document.value = named('e')
  await flushPromises()
  expect(asked.at(-1)).toMatchObject({ name: 'd', part: 'rest' })
  expect(asked.at(-1)!.signal.aborted).toBe(false)
})
