import { expect, it } from 'vitest'
import type { TicketView } from '../shared/types'
import { nextMove } from './nextMove'

const ticket = (known: Partial<TicketView>) => ({ discrepancies: [], next: { who: '', say: '', room: 'tickets' }, ...known }) as TicketView
const part = { serial: 'C', model: '', bytes: 1, depot: '', issuedTo: 'ilka' }
const ready = { engineer: 'ilka', latest: {} as TicketView['latest'], part }
const run = (current: object | null) => ({ current }) as TicketView['run']

it.each<[string, Partial<TicketView>, string]>([
  ['nobody has it', {}, 'take'],
  ['it is on hold, whatever else', { ...ready, holdReason: 'snow' }, 'resume'],
  ['somebody waits for a lead', { ...ready, help: { reason: '', by: 'ilka', at: '' } }, 'answer'],
  ['nothing is known of the bays', { engineer: 'ilka' }, 'snapshot'],
  ['no part is reserved', { ...ready, part: null }, 'part'],
  ['the part is not handed over', { ...ready, part: { ...part, issuedTo: null } }, 'part'],
  ['one has to travel', ready, 'arrive'],
  ['one is there', { ...ready, arrivedAt: 'now' }, 'start-run'],
  ['a step waits', { ...ready, run: run({}) }, 'run'],
  [
    'the record contradicts itself',
    { ...ready, run: run(null), discrepancies: [{ id: 'x', about: '', sentence: '', at: '', by: '' }] },
    'settle',
  ],
  ['a drive has to go back', { ...ready, run: run(null), next: { who: '', say: '', room: 'returns' } }, 'return'],
  ['the customer has to sign', { ...ready, run: run(null) }, 'sign-off'],
  ['everything is done', { ...ready, run: run(null), signedOffBy: 'x' }, 'close'],
  ['it is closed', { ...ready, endedAt: 'now' }, 'nothing'],
])('when %s, the one button says so', (_, known, move) => expect(nextMove(ticket(known))).toBe(move))
