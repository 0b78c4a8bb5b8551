import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import type { DesignData } from '@/shared/api/document'
import { useDesign } from './useDesign'

const KEY = 'stileblade-draft-quay-me-7'
const NOON = '2026-01-01T12:00:00Z'
const stored = { name: 'Whale', pieces: [] } as Partial<DesignData> as DesignData
const named = (name: string) => ({ ...stored, name })

/** A server that keeps one design. */
class Server {
  revision = 1
  document = stored
  saves: string[] = []

  get = () => reply({ id: 7, revision: this.revision, modified: NOON, document: this.document })

  put = ({ document, revision }: { document: DesignData; revision: number }) => {
    if (revision !== this.revision) return reply(undefined, { title: 'changed elsewhere', revision: this.revision, kept: 3 })
    this.revision += 1
    this.document = document
    this.saves.push(document.name)
    return reply({ id: 7, revision: this.revision, modified: NOON })
  }
}
const reply = (data: unknown, error?: unknown) =>
  Promise.resolve({ data, error, response: new Response(null, { status: error ? 409 : 200 }) })

let server: Server
vi.mock('@/shared/api/client', async (original) => ({
  ...(await original<object>()),
  client: {
    GET: () => server.get(),
    PUT: (_: string, request: { body: never }) => server.put(request.body),
  },
}))

let scope: EffectScope

async function opened() {
  const design = scope.run(() => useDesign(7, 'quay-me'))!
  await design.load()
  return design
}
const leave = (draft: object) => localStorage.setItem(KEY, JSON.stringify({ at: NOON, ...draft }))
const pass = async (ms: number) => {
  await vi.advanceTimersByTimeAsync(ms)
  await flushPromises()
}

beforeEach(() => {
  vi.useFakeTimers()
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, text: string) => kept.set(key, text),
    removeItem: (key: string) => kept.delete(key),
  })
  server = new Server()
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('a draft in this browser', () => {
  it('offers a draft that the server never got, and does not take it', async () => {
    leave({ revision: 1, document: named('drafted'), sent: null })
    const design = await opened()
    expect(design.document.value?.name).toBe('Whale')
    expect(design.offered.value?.document.name).toBe('drafted')
    await pass(5000)
    expect(server.saves).toEqual([])
    design.takeUp()
    expect(design.document.value?.name).toBe('drafted')
    expect(design.offered.value).toBeNull()
    await pass(100)
    expect(server.saves).toEqual(['drafted'])
    design.undo()
    expect(design.document.value?.name).toBe('Whale')
  })

  it('offers it again until it is decided, whatever is changed meanwhile', async () => {
    leave({ revision: 1, document: named('drafted'), sent: null })
    const first = await opened()
    first.change(() => named('begun anew'))
    await pass(1000)
    expect(server.saves).toEqual(['begun anew'])
    const later = await opened()
    expect(later.offered.value?.document.name).toBe('drafted')
    later.letGo()
    expect((await opened()).offered.value).toBeNull()
  })

  it('keeps both where the design has gone on since the draft', async () => {
    server.revision = 5
    server.document = named('theirs')
    leave({ revision: 1, document: named('old'), sent: null })
    const design = await opened()
    expect(design.document.value?.name).toBe('theirs')
    design.takeUp()
    await pass(1000)
    expect(design.state.value).toBe('conflict')
    expect(server.document.name).toBe('theirs')
  })

  it.each(['stileblade-draft-7', 'stileblade-draft-quay-you-7', 'stileblade-draft-pier-me-7'])(
    'never offers what is of another person or place: %s',
    async (key) => {
      localStorage.setItem(key, JSON.stringify({ revision: 1, document: named('not mine'), sent: null, at: NOON }))
      expect((await opened()).offered.value).toBeNull()
    },
  )

  it('takes no harm from a draft that is none', async () => {
    localStorage.setItem(KEY, '{"revision": 1')
    expect((await opened()).offered.value).toBeNull()
  })

  it('knows its own save whose answer was lost, and does not call it a conflict', async () => {
    server.revision = 2
    server.document = named('sent')
    leave({ revision: 1, document: named('newer'), sent: named('sent') })
    const design = await opened()
    design.takeUp()
    await pass(100)
    expect(design.state.value).toBe('saved')
    expect(server.saves).toEqual(['newer'])
  })
})
