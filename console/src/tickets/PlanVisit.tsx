import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useFields } from '../shared/useFields'
import type { Writer } from './ticketQueries'

/** When the engineer is expected there; planning another time moves the visit in their calendar. */
export function PlanVisit({ writer }: { writer: Writer }) {
  const [visit, typed] = useFields({ from: '', hours: '2' })
  return (
    <form
      className="row"
      style={{ marginTop: 12, alignItems: 'flex-end' }}
      onSubmit={event => {
        event.preventDefault()
        const from = new Date(visit.from)
        void writer.write({
          kind: 'visit-planned',
          from: from.toISOString(),
          to: new Date(from.getTime() + Number(visit.hours) * 3_600_000).toISOString(),
        })
      }}
    >
      <TextInput label="Visit begins" type="datetime-local" required withAsterisk={false} value={visit.from} onChange={typed('from')} />
      <NativeSelect label="Hours" data={['1', '2', '3', '4', '6', '8']} value={visit.hours} onChange={typed('hours')} />
      <Button type="submit" variant="default" loading={writer.busy}>
        Plan the visit
      </Button>
    </form>
  )
}
