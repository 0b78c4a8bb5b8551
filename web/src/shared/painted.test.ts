import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { painted } from './painted'

let frames: FrameRequestCallback[] = []
const frame = () => frames.splice(0).forEach((run) => run(0))
const settled = async (waited: Promise<void>) => {
  let done = false
  void waited.then(() => (done = true))
  await vi.advanceTimersByTimeAsync(0)
  return done
}

beforeEach(() => {
  frames = []
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  vi.stubGlobal('requestAnimationFrame', (run: FrameRequestCallback) => frames.push(run))
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('waits for the frame in which it is drawn to be over', async () => {
  const waited = painted()
  expect(await settled(waited)).toBe(false)
  frame()
  expect(await settled(waited)).toBe(false)
  frame()
  expect(await settled(waited)).toBe(true)
})

it('does not wait for long where nothing is drawn', async () => {
  const waited = painted()
  await vi.advanceTimersByTimeAsync(59)
  expect(await settled(waited)).toBe(false)
  await vi.advanceTimersByTimeAsync(1)
  expect(await settled(waited)).toBe(true)
})
