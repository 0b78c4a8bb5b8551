/**
 * Commands on a document in the order in which they were given, however long their answers take.
 *
 * A command that has to ask the server is asked of the document as all commands before it have left it; those given
 * after it are shown at once and done again on top of its answer. So the outcome is the same as if each had been waited for.
 */

/** A change of whatever document there is then. */
export type Edit<D> = (now: D) => D

/** A command whose answer comes later. */
export interface Later<D, A = unknown> {
  /** The question, of the document that the command changes; null where it failed, which has been said. */
  readonly ask: (now: D) => Promise<A | null>
  readonly apply: (now: D, answer: A) => D
  /** What is shown of it until the answer is there. */
  readonly meanwhile?: Edit<D>
}

/** Where documents are shown and can be undone. */
export interface Shown<D> {
  readonly now: () => D
  /** One more document, a step to undo. */
  readonly put: (next: D) => void
  /** The last `count` documents that were put, replaced by others. */
  readonly replace: (count: number, documents: readonly D[]) => void
}

type Command<D> = { readonly edit: Edit<D>; puts: number } | { readonly later: Later<D>; puts: number }

export class CommandLog<D> {
  /** The document that all commands before the waiting ones have left. */
  private settled: D | null = null
  /** Commands that wait for an answer: the first one for its own, the others for that. */
  private waiting: Command<D>[] = []

  constructor(
    private readonly shown: Shown<D>,
    private readonly waits: (count: number) => void = () => undefined,
  ) {}

  /** Another document from now on: answers that are on their way count for nothing. */
  reset(document: D) {
    this.settled = document
    this.setWaiting([])
  }

  /** Whether it changed anything. */
  change(edit: Edit<D>): boolean {
    const now = this.shown.now()
    const next = edit(now)
    if (next === now) return false
    if (this.waiting.length) this.setWaiting([...this.waiting, { edit, puts: 1 }])
    else this.settled = next
    this.shown.put(next)
    return true
  }

  later<A>(later: Later<D, A>) {
    const now = this.shown.now()
    const next = later.meanwhile?.(now) ?? now
    if (next !== now) this.shown.put(next)
    this.setWaiting([...this.waiting, { later: later as Later<D>, puts: next === now ? 0 : 1 }])
    if (this.waiting.length === 1) void this.askFirst()
  }

  /** The last command is taken back while something waits; false where nothing does. */
  takeBack(): boolean {
    const last = this.waiting.at(-1)
    if (!last || this.settled === null) return false
    const count = this.puts()
    this.setWaiting(this.waiting.slice(0, -1))
    this.shown.replace(count, this.showWaiting(this.settled))
    return true
  }

  private async askFirst(): Promise<void> {
    const first = this.waiting[0]
    if (!first || !('later' in first) || this.settled === null) return
    const answer = await first.later.ask(this.settled)
    if (this.waiting[0] === first) this.settle(first.later, answer)
  }

  private settle(later: Later<D>, answer: unknown) {
    const count = this.puts()
    const made: D[] = []
    const keep = (next: D) => {
      if (next !== this.settled) made.push(next)
      this.settled = next
    }
    if (answer !== null) keep(later.apply(this.settled!, answer))
    let rest = this.waiting.slice(1)
    for (let first = rest[0]; first && 'edit' in first; first = rest[0]) {
      keep(first.edit(this.settled!))
      rest = rest.slice(1)
    }
    this.setWaiting(rest)
    this.shown.replace(count, [...made, ...this.showWaiting(this.settled!)])
    void this.askFirst()
  }

  /** What is shown of the commands that wait, on top of a document. */
  private showWaiting(now: D): D[] {
    const found: D[] = []
    for (const command of this.waiting) {
      const next = 'edit' in command ? command.edit(now) : (command.later.meanwhile?.(now) ?? now)
      command.puts = next === now ? 0 : 1
      if (next !== now) found.push(next)
      now = next
    }
    return found
  }

  private puts(): number {
    return this.waiting.reduce((sum, command) => sum + command.puts, 0)
  }

  private setWaiting(waiting: Command<D>[]) {
    this.waiting = waiting
    this.waits(waiting.length)
  }
}
