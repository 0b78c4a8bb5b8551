import { beforeEach, describe, expect, it } from 'vitest'
import { LESSONS, useCourse } from './course'
import { KEYS } from './keys'
import { isTyping } from './useHelp'
import { WORDS } from './words'

describe('the course', () => {
  beforeEach(() => useCourse().leave())

  it('goes on with what is done, past what was skipped, and never back', () => {
    const course = useCourse()
    course.reach('new')
    expect(course.lesson.value).toBeNull()
    course.begin()
    expect(course.lesson.value?.done).toBe('new')
    // another design that is opened meanwhile is not the card of the course
    course.reach('built')
    expect(course.lesson.value?.done).toBe('new')
    course.reach('new')
    expect(course.lesson.value?.done).toBe('size')
    course.reach('built')
    expect(course.lesson.value?.done).toBe('lap')
    course.reach('size')
    expect(course.lesson.value?.done).toBe('lap')
    course.reach('saved')
    expect(course.finished.value).toBe(true)
  })
  it('is gone through by hand, and kept', () => {
    const course = useCourse()
    course.begin()
    course.go(1)
    course.go(-1)
    course.go(-1)
    expect(course.at.value).toBe(0)
    LESSONS.forEach(() => course.go(1))
    course.go(1)
    expect(course.at.value).toBe(LESSONS.length)
    expect(useCourse().finished.value).toBe(true)
  })
})

describe('the help', () => {
  it('has each word and each key of a place once', () => {
    expect(new Set(WORDS.map((w) => w.word)).size).toBe(WORDS.length)
    for (const place of KEYS) expect(new Set(place.keys.map(([key]) => key)).size).toBe(place.keys.length)
  })
  it('leaves a question mark to whoever types it', () => {
    const field = document.createElement('input')
    expect(isTyping(field)).toBe(true)
    field.readOnly = true
    expect(isTyping(field)).toBe(false)
    expect(isTyping(document.createElement('button'))).toBe(false)
  })
})
