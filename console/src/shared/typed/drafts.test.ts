import { beforeEach, expect, it, vi } from 'vitest'
import { draftOf, dropDraft, keepDraft, takeOverDrafts } from './drafts'

beforeEach(() => localStorage.clear())

it('each person has their own on a shared device', () => {
  keepDraft('ilka', '1001.note', { text: 'Key is with the porter' })

  expect(draftOf('ilka', '1001.note')).toEqual({ text: 'Key is with the porter' })
  expect(draftOf('tamsel', '1001.note')).toEqual({})
  dropDraft('ilka', '1001.note')
  expect(draftOf('ilka', '1001.note')).toEqual({})
})

it('a form that nobody came back to for two weeks begins anew', () => {
  vi.useFakeTimers()
  keepDraft('ilka', '1001.note', { text: 'Old' })
  vi.advanceTimersByTime(15 * 24 * 3_600_000)

  expect(draftOf('ilka', '1001.note')).toEqual({})
  vi.useRealTimers()
})

it('what is in the storage and not ours, or no storage at all, loses nothing that is on the page', () => {
  localStorage.setItem('nailcrow.draft.ilka.1001.note', '{broken')
  expect(draftOf('ilka', '1001.note')).toEqual({})

  vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError')
  })
  expect(() => keepDraft('ilka', '1001.note', { text: 'x' })).not.toThrow()
  vi.restoreAllMocks()
})

it('whoever goes on where somebody was has what was typed, and keeps what they typed themselves', () => {
  keepDraft('wynn', '1001.note', { text: 'The lid sticks' })
  keepDraft('wynn', '1002.note', { text: 'Bay 4 is dark' })
  keepDraft('ilka', '1002.note', { text: 'My own' })

  takeOverDrafts('wynn', 'ilka')

  expect(draftOf('ilka', '1001.note')).toEqual({ text: 'The lid sticks' })
  expect(draftOf('ilka', '1002.note')).toEqual({ text: 'My own' })
  expect(draftOf('wynn', '1001.note')).toEqual({})
})
