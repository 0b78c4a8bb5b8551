/** The states of saving, and what leads from one to another. Nothing else does. */
export type SaveState = 'saved' | 'waiting' | 'saving' | 'offline' | 'unkept' | 'refused' | 'conflict'
export type SaveEvent =
  /** There is something newer than what was saved or is on its way. */
  | 'changed'
  /** A save goes off. */
  | 'sent'
  /** It was taken, and nothing newer is there. */
  | 'taken'
  /** It was taken, and something newer is there. */
  | 'behind'
  /** There was no answer. */
  | 'lost'
  /** The server cannot keep anything now. */
  | 'full'
  /** The server would not have it. */
  | 'refused'
  /** Somebody else saved in the meantime. */
  | 'late'
  /** It was decided which version goes on. */
  | 'decided'

const NEXT: Readonly<Record<SaveState, Partial<Record<SaveEvent, SaveState>>>> = {
  saved: { changed: 'waiting', sent: 'saving' },
  waiting: { changed: 'waiting', sent: 'saving' },
  // what changes while a save is on its way waits for its answer
  saving: { changed: 'saving', taken: 'saved', behind: 'waiting', lost: 'offline', full: 'unkept', refused: 'refused', late: 'conflict' },
  offline: { changed: 'waiting', sent: 'saving' },
  unkept: { changed: 'waiting', sent: 'saving' },
  refused: { changed: 'waiting', sent: 'saving' },
  conflict: { changed: 'conflict', decided: 'waiting' },
}

/** The state after an event; the same where that means nothing there. */
export function next(state: SaveState, event: SaveEvent): SaveState {
  return NEXT[state][event] ?? state
}

/** Whether a save may go off: never while one is on its way, nor before a conflict is decided. */
export function maySend(state: SaveState): boolean {
  return NEXT[state].sent !== undefined
}
