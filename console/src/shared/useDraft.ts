import { useQueryClient } from '@tanstack/react-query'
import { type ChangeEvent, useCallback, useState } from 'react'
import { draftOf, dropDraft, keepDraft } from './drafts'
import type { Person } from './types'

type Typed = ChangeEvent<HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement>

/**
 * The fields of a form that outlive the page until they are sent. A change starts from what the fields are when it is made,
 * not from what was drawn: a scanner types faster than a page is drawn.
 */
export function useDraft<T extends Record<string, string>>(key: string, start: T) {
  const person = useQueryClient().getQueryData<Person>(['me'])?.name ?? ''
  const [fields, setFields] = useState<T>(() => ({ ...start, ...draftOf(person, key) }))
  const set = useCallback(
    (field: keyof T, value: string) =>
      setFields(now => {
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
    setFields(start)
  }
  return { fields, typed, set, drop }
}
