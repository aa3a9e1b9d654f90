import type { EntryBody, Holder } from '../shared/types'
import { said, size } from '../shared/words'

/** A kind that is new to this console, by its name and all that it says. */
function unknown(body: object): string {
  const { kind, ...rest } = body as { kind?: string }
  return `${said(kind ?? 'entry')} ${JSON.stringify(rest)}`
}

/** An entry as a sentence. Every kind has one; a kind that is new to this console is told by its name. */
export function told(body: EntryBody): string {
  switch (body.kind) {
    case 'fault-reported':
      return `Reported: ${body.symptom}${at(body.bay, body.serial)}`
    case 'evidence-seen':
      return `Evidence, ${said(body.evidence)}: ${body.text}${at(body.bay, body.serial)}`
    case 'engineer-assigned':
      return `Assigned to ${body.engineer}`
    case 'put-on-hold':
      return `Put on hold: ${body.reason}${body.waitsFor && body.waitsFor !== 'other' ? ` (waits for ${body.waitsFor})` : ''}`
    case 'visit-planned':
      return `Visit planned from ${body.from} to ${body.to}`
    case 'drive-wiped':
      return `Wiped ${body.serial}: ${body.method}`
    case 'hold-lifted':
      return 'Hold lifted'
    case 'help-called':
      return `Called for help: ${body.reason}`
    case 'help-answered':
      return `${body.goAhead ? 'They may go on' : 'They may not go on'}: ${body.reason}`
    case 'note-written':
      return `Note: ${body.text}`
    case 'discrepancy-settled':
      return `Settled ${body.discrepancy}: ${body.how}`
    case 'ticket-closed':
      return body.otherwise ? `Closed, ${said(body.otherwise)}: ${body.reason}` : 'Closed'
    case 'ticket-cancelled':
      return `Cancelled: ${body.reason}`
    case 'ticket-reopened':
      return `Open again: ${body.reason}`
    case 'snapshot-taken':
      return `Snapshot of ${body.snapshot.bays.length} bays, ${body.snapshot.source === 'person' ? 'typed by hand' : `from ${body.snapshot.source}`}`
    case 'locator-switched':
      return `Locator light ${body.on ? 'on' : 'off'}`
    case 'arrived-on-site':
      return 'Arrived on site'
    case 'sheet-compiled':
      return `Run sheet made: ${body.sheet.title}, bay ${body.sheet.targetBay}`
    case 'step-answered':
      return `${body.step}: ${body.answer}`
    case 'step-passed':
      return `${body.step}: went on`
    case 'step-overruled':
      return `${body.step}: OVERRULED: ${body.reason}`
    case 'drive-pulled':
      return `Pulled ${body.serial} from bay ${body.bay}`
    case 'drive-put-back':
      return `Put ${body.serial} back into bay ${body.bay}`
    case 'drive-inserted':
      return `Inserted ${body.serial} into bay ${body.bay}`
    case 'serial-known-elsewhere':
      return `${body.serial} was already known ${body.where}`
    case 'reading-taken':
      return `Reading of ${body.array}: ${body.progress === 'running' ? `${body.percent ?? 'no'} % of ${body.phase}` : body.progress}, ${body.source}`
    case 'part-reserved':
      return `Reserved ${body.serial}, ${body.model}, ${size(body.bytes)}, at ${body.depot}${body.overruledBecause ? `, although: ${(body.warnings ?? []).join(' ')} Because: ${body.overruledBecause}` : ''}`
    case 'part-issued':
      return `Issued ${body.serial} to ${body.to}`
    case 'return-opened':
      return `Return of ${body.serial} to ${holder(body.to)}, ${said(body.reason)}`
    case 'return-sent':
      return `${body.serial} given to ${body.carrier}${body.tracking ? `, ${body.tracking}` : ''}`
    case 'return-arrived':
      return `Box for ${body.serial} opened: ${body.serialInBox}`
    case 'customer-signed-off':
      return `Signed off by ${body.name}${body.statement ? `: ${body.statement}` : ''}`
    case 'photo-taken':
      return `A picture${body.says ? `: ${body.says}` : ''}`
    case 'step-decided':
      return `${body.step}: decided ${body.answer}`
    case 'step-taken-back':
      return `${body.step}: the answer was taken back`
    case 'drives-chosen':
      return `Drives to swap, in order: ${body.serials.join(', ')}`
    case 'drive-reseated':
      return `Seated ${body.serial} again in bay ${body.bay}`
    default:
      return unknown(body)
  }
}

const at = (bay: string | null | undefined, serial: string | null | undefined) =>
  (bay ? `, bay ${bay}` : '') + (serial ? `, ${serial}` : '')
const holder = (to: Holder) => (to.kind === 'destroyed' ? 'destroyed' : `${to.kind} ${to.name}`)
