import { type ChangeEvent, useState } from 'react'

type Typed = ChangeEvent<HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement>

/**
 * The fields of a form, all text, and what to do when one is typed into. A change starts from what the fields are when it
 * is made, not from what was drawn: a scanner types faster than a page is drawn.
 */
export function useFields<T extends Record<string, string>>(start: T) {
  const [fields, setFields] = useState(start)
  const typed = (field: keyof T) => (event: Typed) => {
    const { value } = event.currentTarget
    setFields(now => ({ ...now, [field]: value }))
  }
  return [fields, typed] as const
}
