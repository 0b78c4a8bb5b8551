/** Milliseconds after which a page that is not drawn, as in a window that is not seen, is no longer waited for. */
const LONGEST = 60

/** Resolves when what is in the page now has been drawn: at the beginning of the frame after its own. */
export function painted(): Promise<void> {
  return new Promise((done) => {
    const late = setTimeout(done, LONGEST)
    requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        clearTimeout(late)
        done()
      }),
    )
  })
}
