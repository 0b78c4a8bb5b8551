import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import { usePinch } from './usePinch'
import { useViewport, type Viewport } from './useViewport'

let viewport: Viewport

beforeEach(() => {
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  )
  viewport = effectScope().run(() => useViewport(ref(null)))!
})
const BOX = { left: 10, head: 0, right: 110, foot: 50 }

describe('where the flat view looks', () => {
  it('shows all of a box with room round it', () => {
    viewport.fit(BOX)
    const { toX, toY, view } = viewport
    expect(toX(10)).toBeGreaterThanOrEqual(62 - 1e-9)
    expect(toX(110)).toBeLessThanOrEqual(view.width - 84 + 1e-9)
    expect(toY(50)).toBeLessThanOrEqual(view.height - 84 + 1e-9)
  })

  it('keeps the place under the pointer where it is', () => {
    viewport.fit(BOX)
    const mm = [viewport.fromX(300), viewport.fromY(200)]
    viewport.zoomAt(300, 200, 2.5)
    expect([viewport.fromX(300), viewport.fromY(200)]).toEqual(mm.map((v) => expect.closeTo(v)))
  })

  it('turns the sheet over about the middle of the view', () => {
    viewport.fit(BOX)
    const { toX, fromX, view } = viewport
    const middle = fromX(view.width / 2)
    const before = toX(30)
    viewport.turnOver()
    expect(fromX(view.width / 2)).toBeCloseTo(middle)
    expect(toX(30) - view.width / 2).toBeCloseTo(view.width / 2 - before)
    expect(viewport.alongX(10)).toBeCloseTo(-10 / view.scale)
    expect(viewport.alongY(10)).toBeCloseTo(10 / view.scale)
    viewport.fit(BOX)
    expect(toX(110)).toBeGreaterThanOrEqual(62 - 1e-9)
    expect(toX(10)).toBeGreaterThan(toX(110))
    viewport.turnOver()
    expect(toX(10)).toBeLessThan(toX(110))
  })

  it('zooms to a scale, within bounds', () => {
    viewport.zoomTo(96 / 25.4)
    expect(viewport.view.scale).toBeCloseTo(3.7795, 4)
    viewport.zoomTo(1e9)
    expect(viewport.view.scale).toBe(400)
  })
})

describe('two fingers', () => {
  const touch = (id: number, x: number, y: number, type = 'touch') =>
    ({ pointerId: id, pointerType: type, offsetX: x, offsetY: y }) as PointerEvent

  it('zoom about the place between them and move with it', () => {
    viewport.fit(BOX)
    const pinch = usePinch(viewport)
    const scale = viewport.view.scale
    pinch.down(touch(1, 300, 200))
    pinch.down(touch(2, 400, 200))
    const middle = viewport.fromX(350)
    expect(pinch.move(touch(2, 500, 200))).toBe(true)
    expect(viewport.view.scale / scale).toBeCloseTo(2)
    expect(viewport.fromX(400)).toBeCloseTo(middle)
  })

  it('are not one finger, and no mouse', () => {
    const pinch = usePinch(viewport)
    pinch.down(touch(1, 300, 200))
    expect(pinch.move(touch(1, 320, 200))).toBe(false)
    pinch.down(touch(2, 100, 100, 'mouse'))
    expect(pinch.move(touch(1, 330, 200))).toBe(false)
    pinch.up(touch(1, 330, 200))
    expect(pinch.move(touch(1, 340, 200))).toBe(false)
  })
})
