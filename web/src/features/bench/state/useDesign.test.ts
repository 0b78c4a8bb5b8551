import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import type { DesignData } from '@/shared/api/document'
import { openDrafts } from '@/shared/drafts'
import { emptyStore } from '@/shared/draftsTesting'
import { useDesign } from './useDesign'

const drafts = () => openDrafts('quay-me').map((key) => localStorage.getItem(key))
const NOON = '2026-01-01T12:00:00Z'
const stored = { name: 'Whale', pieces: [] } as Partial<DesignData> as DesignData
const named = (name: string) => ({ ...stored, name })

/** A server that keeps one design, and counts what is saved. */
class Server {
  revision = 1
  document = stored
  saves: string[] = []
  made: string[] = []
  refuses = false
  offline = false
  losesAnswers = false
  /** Milliseconds that an answer takes. */
  delay = 0
  /** How many saves are on their way, and the most that were at once. */
  under = 0
  most = 0

  get = () => this.reply({ id: 7, revision: this.revision, modified: NOON, document: this.document })

  post = ({ document }: { document: DesignData }) => {
    this.made.push(document.name)
    return this.reply({ id: 8, revision: 1, modified: NOON })
  }

  put = ({ document, revision }: { document: DesignData; revision: number }) => {
    if (this.offline) return this.reply(undefined)
    if (this.refuses) return this.reply(undefined, { title: 'odd value' }, 422)
    if (revision !== this.revision) {
      return this.reply(undefined, { title: 'changed elsewhere', revision: this.revision, kept: 3 })
    }
    this.revision += 1
    this.document = document
    this.saves.push(document.name)
    return this.reply({ id: 7, revision: this.revision, modified: NOON })
  }

  private async reply(data: unknown, error?: unknown, status = error ? 409 : 200) {
    this.under += 1
    this.most = Math.max(this.most, this.under)
    if (this.delay) await new Promise((done) => setTimeout(done, this.delay))
    this.under -= 1
    if (this.offline || this.losesAnswers) throw new TypeError('Failed to fetch')
    return { data, error, response: new Response(null, { status }) }
  }
}

let server: Server
vi.mock('@/shared/api/client', async (original) => ({
  ...(await original<object>()),
  client: {
    GET: () => server.get(),
    POST: (_: string, request: { body: never }) => server.post(request.body),
    PUT: (_: string, request: { body: never }) => server.put(request.body),
  },
}))

let scope: EffectScope

async function opened() {
  const design = scope.run(() => useDesign(7, 'quay-me'))!
  await design.load()
  return design
}
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

describe('an open design', () => {
  it('saves within a second of the last change, once for many', async () => {
    const design = await opened()
    design.change(() => named('a'))
    await pass(300)
    design.change(() => named('b'))
    expect(design.state.value).toBe('waiting')
    await pass(900)
    expect(server.saves).toEqual(['b'])
    expect(design.state.value).toBe('saved')
  })

  it('undoes and redoes every change, and a new change ends redoing', async () => {
    const design = await opened()
    design.change(() => named('a'))
    design.change(() => named('b'))
    design.undo()
    expect(design.document.value?.name).toBe('a')
    design.undo()
    expect(design.document.value?.name).toBe('Whale')
    expect(design.canUndo.value).toBe(false)
    design.redo()
    expect(design.document.value?.name).toBe('a')
    design.change(() => named('c'))
    expect(design.canRedo.value).toBe(false)
    design.undo()
    expect(design.document.value?.name).toBe('a')
  })

  it('makes one step back of a whole drag, and can give it up', async () => {
    const design = await opened()
    design.preview(() => named('dragged 1'))
    design.preview(() => named('dragged 2'))
    expect(design.canUndo.value).toBe(false)
    design.giveUp()
    expect(design.document.value?.name).toBe('Whale')
    design.preview(() => named('dragged 3'))
    design.change(() => named('let go'))
    design.undo()
    expect(design.document.value?.name).toBe('Whale')
  })

  it('keeps a draft while there is no connection, and saves when it is back', async () => {
    const design = await opened()
    server.offline = true
    design.change(() => named('at sea'))
    await pass(1000)
    expect(design.state.value).toBe('offline')
    expect(drafts()).toEqual([expect.stringContaining('at sea')])
    server.offline = false
    await pass(5000)
    expect(server.saves).toEqual(['at sea'])
    expect(drafts()).toEqual([])
  })

  it('goes on after a save whose answer was lost while the page stayed open', async () => {
    const design = await opened()
    server.losesAnswers = true
    design.change(() => named('arrived'))
    await pass(1000)
    expect(design.state.value).toBe('offline')
    server.losesAnswers = false
    design.change(() => named('next'))
    await pass(2000)
    expect(server.saves).toEqual(['arrived', 'next'])
    expect(design.state.value).toBe('saved')
  })

  it('sends one save at a time, always of the newest state, when answers come late', async () => {
    const design = await opened()
    server.delay = 2500
    for (const name of ['a', 'b', 'c']) {
      design.change(() => named(name))
      await pass(900)
    }
    expect(design.state.value).toBe('saving')
    await pass(10_000)
    expect(server.most).toBe(1)
    expect(server.saves).toEqual(['a', 'c'])
    expect(design.conflict.value).toBeNull()
    expect(design.state.value).toBe('saved')
    expect(drafts()).toEqual([])
  })

  it('keeps what is changed while a save is on its way, and undoes across it', async () => {
    const design = await opened()
    server.delay = 1000
    design.change(() => named('first'))
    await pass(700)
    design.change(() => named('second'))
    design.undo()
    design.undo()
    expect(design.document.value?.name).toBe('Whale')
    await pass(5000)
    expect(server.saves).toEqual(['first', 'Whale'])
    expect(server.document.name).toBe('Whale')
    design.redo()
    design.redo()
    await pass(5000)
    expect(server.saves.at(-1)).toBe('second')
  })

  it('goes on drawing and saving after a refusal', async () => {
    const design = await opened()
    server.refuses = true
    design.change(() => named('odd'))
    await pass(1000)
    expect(design.state.value).toBe('refused')
    expect(design.trouble.value).toBe('odd value')
    server.refuses = false
    design.change(() => named('even'))
    await pass(1000)
    expect(server.saves).toEqual(['even'])
    expect(design.trouble.value).toBe('')
  })

  it('makes a design of its own of mine, and shows theirs', async () => {
    const design = await opened()
    server.revision = 4
    server.document = named('theirs')
    design.change(() => named('mine'))
    await pass(1000)
    expect(await design.keepBoth()).toBe(8)
    expect(server.made).toEqual(['mine (mine)'])
    expect(design.document.value?.name).toBe('theirs')
    expect(design.state.value).toBe('saved')
  })

  it('saves what is left when the page is left', async () => {
    const design = await opened()
    design.change(() => named('last'))
    scope.stop()
    await pass(0)
    expect(server.saves).toEqual(['last'])
  })

  it('does not take a passing picture for a change', async () => {
    const design = await opened()
    design.preview(() => named('dragged'))
    await pass(3000)
    expect(server.saves).toEqual([])
    design.undo()
    expect(design.document.value?.name).toBe('Whale')
  })

  it('stops at a newer version, and goes on with the one that is chosen', async () => {
    const design = await opened()
    server.revision = 4
    server.document = named('theirs')
    design.change(() => named('mine'))
    await pass(1000)
    expect(design.state.value).toBe('conflict')
    expect(design.conflict.value).toEqual({ revision: 4, kept: 3 })
    expect(server.saves).toEqual([])
    await design.keepMine()
    expect(server.saves).toEqual(['mine'])
    expect(design.state.value).toBe('saved')
  })

  it('takes the other version, and undo still brings mine back', async () => {
    const design = await opened()
    server.revision = 4
    server.document = named('theirs')
    design.change(() => named('mine'))
    await pass(1000)
    await design.takeTheirs()
    expect(design.document.value?.name).toBe('theirs')
    design.undo()
    expect(design.document.value?.name).toBe('mine')
  })
})
