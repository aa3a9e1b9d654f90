import { expect, it } from 'vitest'
import { asked, offered } from '../../shared/offered.testing'
import type { MoveField, OfferedMove } from '../../shared/types'
import { filled, untouched } from './moveBody'

const move = (body: object, ...fields: MoveField[]) => offered('open-return', 'Send', { body: body as OfferedMove['body'], fields })

it('puts what was typed where Core says it goes, also into a part of the body', () => {
  const opened = move({ kind: 'return-opened', serial: 'X1', to: { kind: 'maker', name: '' } }, asked({ name: 'to.name' }))
  expect(filled(opened, { 'to.name': ' Pellworth ' })).toEqual({
    kind: 'return-opened',
    serial: 'X1',
    to: { kind: 'maker', name: 'Pellworth' },
  })
})

it('reads whole bytes with their separators, and a percentage with a comma', () => {
  const typed = filled(move({}, asked({ name: 'bytes', kind: 'bytes' }), asked({ name: 'percent', kind: 'number' })), {
    bytes: '12,000,138 625 024',
    percent: '62,5',
  })
  expect(typed).toEqual({ bytes: 12000138625024, percent: 62.5 })
})

it('sends nothing for a field that may be left empty, and an empty word for one that may not, so that the service says so', () => {
  const left = move({ kind: 'customer-signed-off', name: '' }, asked({ name: 'name' }), asked({ name: 'statement', required: false }))
  expect(filled(left, {})).toEqual({ kind: 'customer-signed-off', name: '', statement: null })
})

it('sends true for a yes, and nothing where none was said', () => {
  const used = move({ kind: 'supplies-used', supply: 'x', asNamed: null }, asked({ name: 'asNamed', kind: 'flag', required: false }))
  expect(filled(used, { asNamed: 'true' })).toMatchObject({ asNamed: true })
  expect(filled(used, { asNamed: '' })).toMatchObject({ asNamed: null })
})

it('leaves the body that was offered as it was', () => {
  const note = move({ kind: 'note-written', text: '' }, asked({ name: 'text', value: 'as before' }))
  filled(note, { text: 'key is with the porter' })
  expect(note.body).toEqual({ kind: 'note-written', text: '' })
  expect(untouched(note)).toEqual({ text: 'as before' })
})
