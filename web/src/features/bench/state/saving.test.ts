import { describe, expect, it } from 'vitest'
import { maySend, next, type SaveEvent, type SaveState } from './saving'

const follow = (state: SaveState, ...events: SaveEvent[]) => events.reduce(next, state)

describe('the states of saving', () => {
  it('go from a change to its answer', () => {
    expect(follow('saved', 'changed', 'sent', 'taken')).toBe('saved')
    expect(follow('saved', 'changed', 'sent', 'changed', 'behind', 'sent', 'taken')).toBe('saved')
  })

  it('have one save on its way', () => {
    expect(maySend('saving')).toBe(false)
    expect(follow('saving', 'changed')).toBe('saving')
    expect(follow('saving', 'sent')).toBe('saving')
  })

  it('wait for a decision after a conflict, whatever is changed', () => {
    expect(follow('saving', 'late')).toBe('conflict')
    expect(follow('conflict', 'changed', 'changed')).toBe('conflict')
    expect(maySend('conflict')).toBe(false)
    expect(follow('conflict', 'decided')).toBe('waiting')
  })

  it('try again after a lost connection and after a refusal', () => {
    expect(follow('saving', 'lost')).toBe('offline')
    expect(follow('offline', 'sent', 'taken')).toBe('saved')
    expect(follow('saving', 'refused', 'changed', 'sent')).toBe('saving')
  })

  it('are left as they are by what means nothing there', () => {
    expect(next('saved', 'late')).toBe('saved')
    expect(next('waiting', 'taken')).toBe('waiting')
  })
})
