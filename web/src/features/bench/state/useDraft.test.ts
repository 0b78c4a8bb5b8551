import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import type { DesignData } from '@/shared/api/document'
import { newDraftKey, openDrafts, sealDrafts } from '@/shared/drafts'
import { emptyStore } from '@/shared/draftsTesting'
import { useDesign } from './useDesign'

const DRAFT_KEY = btoa('of this person'.padEnd(32, '.'))
const NOON = '2026-01-01T12:00:00Z'
const stored = { name: 'Whale', pieces: [] } as Partial<DesignData> as DesignData
const named = (name: string) => ({ ...stored, name })

/** A server that keeps one design. */
class Server {
  revision = 1
  document = stored
  saves: string[] = []
  draftKey = DRAFT_KEY
  offline = false

  get = (path: string) => (path.endsWith('draft-key') ? reply({ key: this.draftKey }) : this.design())

  design = () => reply({ id: 7, revision: this.revision, modified: NOON, document: this.document })

  put = ({ document, revision }: { document: DesignData; revision: number }) => {
    if (this.offline) return Promise.reject(new TypeError('Failed to fetch'))
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
    GET: (path: string) => server.get(path),
    PUT: (_: string, request: { body: never }) => server.put(request.body),
  },
}))

let scope: EffectScope

async function opened() {
  const design = scope.run(() => useDesign(7, 'quay-me'))!
  await design.load()
  return design
}
const leave = (draft: object) => localStorage.setItem('stileblade-draft/quay-me/7/before', JSON.stringify({ at: NOON, ...draft }))
const offers = (design: ReturnType<typeof useDesign>) => design.offered.value.map((d) => d.document.name)
const pass = async (ms: number) => {
  await vi.advanceTimersByTimeAsync(ms)
  await flushPromises()
}

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('localStorage', emptyStore())
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
    expect(offers(design)).toEqual(['drafted'])
    await pass(5000)
    expect(server.saves).toEqual([])
    design.takeUp(design.offered.value[0]!)
    expect(design.document.value?.name).toBe('drafted')
    expect(offers(design)).toEqual([])
    await pass(100)
    expect(server.saves).toEqual(['drafted'])
    expect(openDrafts('quay-me')).toEqual([])
    design.undo()
    expect(design.document.value?.name).toBe('Whale')
  })

  it('offers what each of two tabs left, the newest first', async () => {
    server.offline = true
    for (const name of ['first tab', 'second tab']) {
      const tab = effectScope()
      server.offline = false
      const design = tab.run(() => useDesign(7, 'quay-me'))!
      await design.load()
      server.offline = true
      design.change(() => named(name))
      await pass(1000)
      tab.stop()
      await pass(10)
    }
    server.offline = false
    const design = await opened()
    expect(offers(design)).toEqual(['second tab', 'first tab'])
    design.letGo(design.offered.value[0]!)
    expect(offers(design)).toEqual(['first tab'])
    design.takeUp(design.offered.value[0]!)
    await pass(100)
    expect(server.saves).toEqual(['first tab'])
    expect(offers(await opened())).toEqual([])
  })

  it('does not offer what another tab is still working on', async () => {
    const held = new Set<string>()
    vi.stubGlobal('navigator', {
      locks: {
        request: (name: string, until: () => Promise<void>) => (held.add(name), until().then(() => held.delete(name))),
        query: () => Promise.resolve({ held: [...held].map((name) => ({ name })) }),
      },
    })
    const tab = effectScope()
    const working = tab.run(() => useDesign(7, 'quay-me'))!
    await working.load()
    server.offline = true
    working.change(() => named('in hand'))
    await pass(1000)
    server.offline = false
    expect(offers(await opened())).toEqual([])
    server.offline = true
    tab.stop()
    await pass(10)
    server.offline = false
    expect(offers(await opened())).toEqual(['in hand'])
  })

  it('offers it again until it is decided, whatever is changed meanwhile', async () => {
    leave({ revision: 1, document: named('drafted'), sent: null })
    const first = await opened()
    first.change(() => named('begun anew'))
    await pass(1000)
    expect(server.saves).toEqual(['begun anew'])
    const later = await opened()
    expect(offers(later)).toEqual(['drafted'])
    later.letGo(later.offered.value[0]!)
    expect(offers(await opened())).toEqual([])
  })

  it('keeps both where the design has gone on since the draft', async () => {
    server.revision = 5
    server.document = named('theirs')
    leave({ revision: 1, document: named('old'), sent: null })
    const design = await opened()
    expect(design.document.value?.name).toBe('theirs')
    design.takeUp(design.offered.value[0]!)
    await pass(1000)
    expect(design.state.value).toBe('conflict')
    expect(server.document.name).toBe('theirs')
  })

  it.each(['stileblade-draft-quay-me-7', 'stileblade-draft-quay-me-7-offered'])('finds one by the names of before: %s', async (key) => {
    localStorage.setItem(key, JSON.stringify({ revision: 1, document: named('of before'), sent: null, at: NOON }))
    expect(offers(await opened())).toEqual(['of before'])
    expect(localStorage.getItem(key)).toBeNull()
  })

  it.each(['stileblade-draft-7', 'stileblade-draft/quay-you/7/a', 'stileblade-draft/pier-me/7/a', 'stileblade-draft/quay-me/77/a'])(
    'never offers what is of another person, place or design: %s',
    async (key) => {
      localStorage.setItem(key, JSON.stringify({ revision: 1, document: named('not mine'), sent: null, at: NOON }))
      expect(offers(await opened())).toEqual([])
    },
  )

  it('takes a name with a stroke for no other design', async () => {
    const tab = effectScope()
    localStorage.setItem(newDraftKey('quay-me/7', 5), JSON.stringify({ revision: 1, document: named('not mine'), sent: null, at: NOON }))
    expect(offers(await opened())).toEqual([])
    tab.stop()
  })

  it('takes no harm from a draft that is none', async () => {
    localStorage.setItem('stileblade-draft/quay-me/7/a', '{"revision": 1')
    expect(offers(await opened())).toEqual([])
  })

  it('knows its own save whose answer was lost, and does not call it a conflict', async () => {
    server.revision = 2
    server.document = named('sent')
    leave({ revision: 1, document: named('newer'), sent: named('sent') })
    const design = await opened()
    design.takeUp(design.offered.value[0]!)
    await pass(100)
    expect(design.state.value).toBe('saved')
    expect(server.saves).toEqual(['newer'])
  })
})

describe('when somebody signs out', () => {
  it('cannot be read any more, and comes back with the person', async () => {
    leave({ revision: 1, document: named('drafted'), sent: null })
    await sealDrafts('quay-me')
    expect(openDrafts('quay-me')).toEqual([])
    const [key] = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i)!)
    expect(localStorage.getItem(key!)).not.toContain('drafted')
    expect(offers(await opened())).toEqual(['drafted'])
  })

  it('stays sealed for somebody else', async () => {
    leave({ revision: 1, document: named('drafted'), sent: null })
    await sealDrafts('quay-me')
    server.draftKey = btoa('another person'.padEnd(32, '.'))
    expect(offers(await opened())).toEqual([])
    server.draftKey = DRAFT_KEY
    expect(offers(await opened())).toEqual(['drafted'])
  })
})
