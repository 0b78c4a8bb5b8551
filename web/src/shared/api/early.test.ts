import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { askEarly, fetchOnce, FIRST_DRAWN } from './early'

describe('what is asked early', () => {
  const asked: string[] = []
  let answers: Record<string, Response>
  beforeEach(() => {
    asked.length = 0
    answers = {}
    document.cookie = 'csrftoken=x'
    history.replaceState(null, '', '/')
    vi.stubGlobal('fetch', (what: string | Request) => {
      const { pathname, search } = new URL(typeof what === 'string' ? what : what.url, 'http://localhost')
      asked.push(pathname + search)
      return Promise.resolve(answers[pathname] ?? new Response(String(asked.length)))
    })
  })
  afterEach(() => vi.unstubAllGlobals())
  const LIST = `/api/designs?binned=false&drawn=${FIRST_DRAWN}`
  const get = (path: string) => fetchOnce(new Request(`http://localhost${path}`)).then((r) => r.text())

  it('is taken once, by the page that it was asked for', async () => {
    askEarly()
    expect(asked).toEqual(['/api/session', LIST])
    expect(await get(LIST)).toBe('2')
    expect(await get(LIST)).toBe('3')
  })
  it('is asked again where it was refused: somebody may have signed in meanwhile', async () => {
    answers['/api/designs'] = new Response('', { status: 401 })
    askEarly()
    answers = {}
    expect(await get(LIST)).toBe('3')
  })
  it('is only who it is, of whoever was never here', () => {
    document.cookie = 'csrftoken=; max-age=0'
    askEarly()
    expect(asked).toEqual(['/api/session'])
  })
})
