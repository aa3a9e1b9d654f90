import type { TicketView } from '../shared/types'

/** The bay this ticket is about: by its sheet, else where the reported serial sits, else as reported. */
export function targetBay(ticket: TicketView): string | null {
  const { run, report, latest } = ticket
  return run?.sheet.targetBay ?? latest?.bays.find(b => report.serial && b.serial === report.serial)?.label ?? report.bay ?? null
}
