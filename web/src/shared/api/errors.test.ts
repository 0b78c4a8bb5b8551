import { describe, expect, it } from 'vitest'
import { ApiError } from './errors'

describe('what the API refuses', () => {
  it('is one error with what to do', () => {
    const error = ApiError.from(422, {
      type: 'stileblade:step', title: 'A lap of 90 mm is deeper than the figure.', hint: 'Make it less.', field: 'lap',
    })
    expect([error.status, error.code, error.field]).toEqual([422, 'step', 'lap'])
    expect(error.text).toBe('A lap of 90 mm is deeper than the figure. Make it less.')
    expect(error.isOffline).toBe(false)
  })

  it.each([null, undefined, 'Bad Gateway', [], { title: 7 }])('says the status where the answer is %o', (body) => {
    expect(ApiError.from(502, body).text).toBe('The server answered with 502.')
  })

  it('keeps what else was said', () => {
    expect(ApiError.from(409, { title: 'late', revision: 4, kept: 3 }).more).toMatchObject({ revision: 4, kept: 3 })
  })

  it('knows a lost connection', () => {
    const error = ApiError.offline()
    expect(error.isOffline).toBe(true)
    expect(error.text).toBe('The server cannot be reached. Your work is kept in this browser.')
  })
})
