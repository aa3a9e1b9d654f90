import type { MoveField, MoveKind, OfferedMove } from './types'

/** A move as the service offers it, for tests of what is drawn from it. */
export const offered = (move: MoveKind, say: string, known: Partial<OfferedMove> = {}): OfferedMove => ({
  move,
  say,
  whyNot: null,
  way: 'entry',
  body: null,
  fields: [],
  about: null,
  ...known,
})

export const asked = (known: Partial<MoveField> & { name: string }): MoveField => ({
  label: known.name,
  kind: 'text',
  required: true,
  value: null,
  choices: null,
  hint: null,
  most: 200,
  ...known,
})
