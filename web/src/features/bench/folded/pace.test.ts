import { PerspectiveCamera, Vector3 } from 'three'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { framing } from './framing'
import { Pace } from './pace'

describe('pace', () => {
  let now = 0
  let frames: FrameRequestCallback[] = []
  const drawn: number[] = []
  const frame = (after: number) => {
    now += after
    const due = frames
    frames = []
    for (const run of due) run(now)
  }
  beforeEach(() => {
    now = 1000
    frames = []
    drawn.splice(0)
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    vi.stubGlobal('requestAnimationFrame', (run: FrameRequestCallback) => frames.push(run))
    vi.spyOn(performance, 'now').mockImplementation(() => now)
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
    vi.restoreAllMocks()
  })

  it('draws once for a frame, however often something changed', () => {
    const pace = new Pace((ratio) => drawn.push(ratio), () => 5000)
    pace.draw()
    pace.draw()
    frame(16)
    expect(drawn).toEqual([1])
    frame(16)
    expect(drawn).toEqual([1])
  })

  it('draws finely once it rests, and not after it was stopped', () => {
    const pace = new Pace((ratio) => drawn.push(ratio), () => 5000)
    pace.draw()
    frame(16)
    vi.advanceTimersByTime(150)
    expect(drawn).toEqual([1, 2])
    pace.draw()
    frame(16)
    pace.stop()
    vi.advanceTimersByTime(1000)
    expect(drawn).toEqual([1, 2, 1])
  })

  it('does not draw finely while something is done, and then as soon as that has been over for a while', () => {
    let doing = 0
    const pace = new Pace((ratio) => drawn.push(ratio), () => Date.now() - doing)
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'Date'] })
    pace.draw()
    frame(16)
    // a key every 400 ms
    for (let i = 0; i < 5; i += 1) {
      doing = Date.now()
      vi.advanceTimersByTime(400)
    }
    expect(drawn).toEqual([1])
    vi.advanceTimersByTime(190)
    expect(drawn).toEqual([1])
    vi.advanceTimersByTime(20)
    expect(drawn).toEqual([1, 2])
  })

  it('draws more coarsely where frames take long, within bounds, and finer again', () => {
    const pace = new Pace((ratio) => drawn.push(ratio), () => 5000)
    for (let i = 0; i < 60; i += 1) {
      pace.draw()
      frame(60)
    }
    expect(drawn.at(-1)).toBe(0.5)
    for (let i = 0; i < 60; i += 1) {
      pace.draw()
      frame(10)
    }
    expect(drawn.at(-1)).toBe(1)
  })
})

describe('framing', () => {
  const camera = new PerspectiveCamera(40, 1.5)
  const square = [-30, 30].flatMap((x) => [-20, 20].map((y) => new Vector3(x, y, 0)))

  it('looks at the middle from where the higher side takes its share', () => {
    const { middle, distance } = framing(new Vector3(0, 0, 1), square.map((p) => p.clone().add(new Vector3(5, 7, 0))), camera, 1)
    expect(middle.toArray()).toEqual([expect.closeTo(5), expect.closeTo(7), expect.closeTo(0)])
    // 20 is half the height: at 20 / tan(20 degrees) it fills the view; 30 wide needs as much at 1.5
    expect(distance).toBeCloseTo(20 / Math.tan((20 * Math.PI) / 180), 6)
    expect(framing(new Vector3(0, 0, 1), square, camera, 0.5).distance).toBeCloseTo(2 * distance, 6)
  })

  it('stands back from what comes nearer', () => {
    const flat = framing(new Vector3(0, 0, 1), square, camera, 1).distance
    const deep = framing(new Vector3(0, 0, 1), [...square, ...square.map((p) => p.clone().setZ(10))], camera, 1).distance
    // the middle has come 5 nearer, and so has what is in front of it
    expect(deep).toBeCloseTo(flat + 5, 6)
  })
})
