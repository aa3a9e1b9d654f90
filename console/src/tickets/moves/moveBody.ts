import type { MoveField, OfferedMove } from '../../shared/types'
import type { Body } from '../ticketQueries'

/** The body of a move's entry with what was typed in its place. Core made the body and says where each field goes. */
export function filled(move: OfferedMove, typed: Record<string, string>): Body {
  const body = structuredClone(move.body ?? {}) as Record<string, unknown>
  for (const field of move.fields) put(body, field.name.split('.'), said(field, typed[field.name] ?? ''))
  return body as Body
}

function put(part: Record<string, unknown>, [name = '', ...rest]: string[], value: unknown): void {
  if (rest.length === 0) part[name] = value
  else {
    part[name] ??= {}
    put(part[name] as Record<string, unknown>, rest, value)
  }
}

function said(field: MoveField, text: string): unknown {
  const words = text.trim()
  if (!words) return field.required ? '' : null
  switch (field.kind) {
    case 'bytes':
      return Number(words.replaceAll(/[\s,]/g, ''))
    case 'number':
      return Number(words.replace(',', '.'))
    case 'flag':
      return words === 'true'
    case 'ticket':
      return Number(words.replace(/^T-/i, ''))
    case 'time':
      return new Date(words).toISOString()
    default:
      return words
  }
}

/** What stands in the fields before anybody typed. */
export const untouched = (move: OfferedMove): Record<string, string> =>
  Object.fromEntries(move.fields.map(field => [field.name, field.kind === 'time' ? asTyped(field.value) : (field.value ?? '')]))

/** A moment as the field for times has it: on this device's clock, without a zone. */
function asTyped(at: string | null | undefined): string {
  if (!at) return ''
  const date = new Date(at)
  return new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 19)
}
