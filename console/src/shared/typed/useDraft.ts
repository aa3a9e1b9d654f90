import { useQueryClient } from '@tanstack/react-query'
import { type ChangeEvent, useCallback, useState } from 'react'
import type { Person } from '../types'
import { draftOf, dropDraft, keepDraft } from './drafts'

type Typed = ChangeEvent<HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement>

/**
 * The fields of a form that outlive the page until they are sent. What nobody has typed into follows what is offered: a number
 * that comes while the form stands open stands in it. A change starts from what the fields are when it is made,
 * not from what was drawn: a scanner types faster than a page is drawn.
 */
export function useDraft<T extends Record<string, string>>(key: string, start: T) {
  const person = useQueryClient().getQueryData<Person>(['me'])?.name ?? ''
  const [typedIn, setTypedIn] = useState<Record<string, string>>(() => draftOf(person, key))
  const fields: T = { ...start, ...typedIn }
  const set = useCallback(
    (field: keyof T, value: string) =>
      setTypedIn(now => {
        const typed = { ...now, [field]: value }
        keepDraft(person, key, typed)
        return typed
      }),
    [person, key],
  )
  const typed = (field: keyof T) => (event: Typed) => set(field, event.currentTarget.value)
  /** It was sent: nothing of it is left. */
  const drop = () => {
    dropDraft(person, key)
    setTypedIn({})
  }
  return { fields, typed, set, drop }
}
