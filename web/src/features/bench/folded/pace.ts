/** When to draw, and how finely: coarser while something moves where frames take long, fine at rest. */

/** Pixels drawn for each of the screen's, along and across, once nothing has moved for a moment. */
export const FINE = 2 * Math.min(globalThis.devicePixelRatio || 1, 2)
/** The least of them while it moves, and how long a frame should take, in ms. */
const COARSEST = 0.5
const SLOW_MS = 27
const QUICK_MS = 19
const REST_MS = 140
/** How long nothing must have been pressed, typed or moved before it is drawn finely: that can hold up the page
 * for a tenth of a second, in which whatever is done next would wait. */
const QUIET_MS = 600

export class Pace {
  private waiting = false
  private coarse = 1
  private drawn = 0
  private taken = 20
  private resting: ReturnType<typeof setTimeout> | undefined

  /** ``quiet``: for how many milliseconds the person has done nothing. */
  constructor(
    private readonly render: (ratio: number) => void,
    private readonly quiet: () => number,
  ) {}

  /** Something has changed: it is drawn with the next frame, and finely once it rests. */
  draw() {
    this.stop()
    this.rest(REST_MS)
    if (this.waiting) return
    this.waiting = true
    requestAnimationFrame(() => {
      this.waiting = false
      this.judge()
      this.render(this.coarse)
    })
  }

  stop() {
    clearTimeout(this.resting)
  }

  private rest(wait: number) {
    this.resting = setTimeout(() => {
      const left = QUIET_MS - this.quiet()
      if (left > 0) this.rest(left)
      else this.render(FINE)
    }, wait)
  }

  private judge() {
    const now = performance.now()
    const took = now - this.drawn
    this.drawn = now
    if (took > REST_MS) return
    this.taken += (took - this.taken) * 0.3
    const { coarse } = this
    if (this.taken > SLOW_MS) this.coarse = Math.max(coarse * 0.85, COARSEST)
    else if (this.taken < QUICK_MS) this.coarse = Math.min(coarse * 1.1, 1)
    // a change is judged by the frames that come after it
    if (this.coarse !== coarse) this.taken = (SLOW_MS + QUICK_MS) / 2
  }
}
