import { expect, it } from 'vitest'
import type { EntryBody } from '../shared/types'
import { told } from './journalTold'

it.each<[EntryBody, string]>([
  [
    {
      kind: 'fault-reported',
      asset: 'F',
      chassisSerial: 'B',
      model: 'M',
      customer: 'C',
      site: 'S',
      location: 'L',
      job: 'fault',
      symptom: 'Amber lamp',
      bay: '2',
      serial: 'P8',
    },
    'Reported: Amber lamp, bay 2, P8',
  ],
  [{ kind: 'evidence-seen', evidence: 'log-lines', source: 'ilka', text: 'medium error' }, 'Evidence, log lines: medium error'],
  [{ kind: 'help-answered', goAhead: false, reason: 'Copy first' }, 'They may not go on: Copy first'],
  [{ kind: 'step-overruled', sheet: 's', step: 'not-fatal', reason: 'Backup is good' }, 'not-fatal: OVERRULED: Backup is good'],
  [
    { kind: 'reading-taken', array: 'vault', progress: 'running', phase: 'rebuilding', source: 'person', percent: 62.5 },
    'Reading of vault: 62.5 % of rebuilding, person',
  ],
  [{ kind: 'reading-taken', array: 'vault', progress: 'done', phase: 'rebuilding', source: 'redfish' }, 'Reading of vault: done, redfish'],
  [
    { kind: 'part-reserved', serial: 'C8', model: 'Cindral C8', bytes: 8_001_563_222_016, depot: 'Stores' },
    'Reserved C8, Cindral C8, 8.00 TB (7.28 TiB), at Stores',
  ],
  [
    { kind: 'return-opened', serial: 'P8', reason: 'exchange-under-warranty', to: { kind: 'maker', name: 'Pellworth' } },
    'Return of P8 to maker Pellworth, exchange under warranty',
  ],
  [{ kind: 'ticket-closed', otherwise: 'handed-over', reason: 'They watch it' }, 'Closed, handed over: They watch it'],
  [{ kind: 'ticket-closed' }, 'Closed'],
])('an entry is told as a sentence: %j', (body, sentence) => expect(told(body)).toBe(sentence))

it('a kind that is new to this console is told by its name and all that it says', () => {
  expect(told({ kind: 'sun-dried', bay: '3' } as unknown as EntryBody)).toBe('sun dried {"bay":"3"}')
})
