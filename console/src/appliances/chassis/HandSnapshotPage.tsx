import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../../shared/api'
import { Refused } from '../../shared/Refused'
import { useDraft } from '../../shared/typed/useDraft'
import type { Snapshot, TicketView } from '../../shared/types'
import { WaitingPage } from '../../shared/Waiting'
import { TicketHead, useTicket, useTicketNumber, useWrite } from '../../tickets'
import { HandArray, HandBay } from './HandBay'
import { seenOf } from './seenOf'
import './handSnapshot.css'

/** All bays as a person sees them, where no wire reaches the machine. It counts as much as the machine's own word. */
export function HandSnapshotPage() {
  const number = useTicketNumber()
  const ticket = useTicket(number)
  const asset = ticket.data?.report.asset
  const appliance = useQuery({
    queryKey: ['appliances', asset],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/appliances/{asset}', { params: { path: { asset: asset ?? '' } }, signal })),
    enabled: Boolean(ticket.data && !ticket.data.latest),
  })
  if (!ticket.data) return <WaitingPage for="the ticket" problem={ticket.error} />
  const start = ticket.data.latest ?? appliance.data?.blank
  if (!start) return <WaitingPage for="the machine" problem={appliance.error} />
  return <HandSnapshot ticket={ticket.data} start={start} />
}

function HandSnapshot({ ticket, start }: { ticket: TicketView; start: Snapshot }) {
  const navigate = useNavigate()
  const writer = useWrite(ticket.number)
  const draft = useDraft<Record<string, string>>(`seen-${ticket.number}`, {})
  const keep = async () => {
    if (!(await writer.run({ errand: 'seen', seen: seenOf(draft.fields) }))) return
    draft.drop()
    navigate(-1)
  }
  return (
    <main className="page wide">
      <TicketHead ticket={ticket} here="as you see it" />
      <p>Change what is not as shown. Bays you leave alone stay as last recorded.</p>
      <section className="panel" aria-label="Arrays">
        {start.arrays.map(array => (
          <HandArray key={array.name} array={array} draft={draft} />
        ))}
      </section>
      {start.bays.map(bay => (
        <HandBay key={bay.label} bay={bay} arrays={start.arrays.map(a => a.name)} draft={draft} />
      ))}
      <div className="hand-foot">
        <Button fullWidth onClick={keep} loading={writer.busy}>
          That is what I see
        </Button>
        <Refused problem={writer.problem} />
      </div>
    </main>
  )
}
