import { beforeEach, expect, it, vi } from 'vitest'
import { ApiProblem } from '../api'
import { answered, forErrands, forWriting, isAnswer, keyOf, pressed } from './presses'

beforeEach(() => {
  localStorage.clear()
  vi.useRealTimers()
})

it('the same thing pressed again before there was an answer is the same press, also after a reload', () => {
  const first = pressed(keyOf(1001, { kind: 'note-written', text: 'Keys' }), forWriting)

  expect(pressed(keyOf(1001, { text: 'Keys', kind: 'note-written' }), forWriting)).toEqual(first)
  expect(pressed(keyOf(1002, { kind: 'note-written', text: 'Keys' }), forWriting).id).not.toBe(first.id)
})

it('once it was answered the same thing is another press', () => {
  const first = pressed('note', forWriting)
  answered(first.id)

  expect(pressed('note', forWriting).id).not.toBe(first.id)
})

it('a look at the machine that was never answered is another look a minute later', () => {
  vi.useFakeTimers({ now: new Date('2026-03-02T12:00:00Z') })
  const first = pressed('snapshot', forErrands)
  vi.advanceTimersByTime(59_000)
  expect(pressed('snapshot', forErrands)).toEqual(first)
  vi.advanceTimersByTime(2_000)

  expect(pressed('snapshot', forErrands).id).not.toBe(first.id)
})

it('what somebody else left in the storage stops nothing', () => {
  localStorage.setItem('nailcrow.presses', '{"no":')

  expect(pressed('note', forWriting).id).toMatch(/^[0-9a-f-]{36}$/)
})

it.each([
  [new ApiProblem(409, 'Refused.'), true],
  [new ApiProblem(503, 'The disk is full.'), false],
  [new TypeError('Failed to fetch'), false],
])('%s is an answer: %s', (error, is) => expect(isAnswer(error)).toBe(is))
