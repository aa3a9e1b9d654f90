import { useRef, useState } from 'react'
import { Press } from '../../shared/typed/Press'
import type { Writer } from '../ticketQueries'
import { smaller } from './smallerPhoto'

type Props = { writer: Writer; step?: string; of?: string; label?: string }

/** A picture from the phone's camera, kept with the step it was taken at, or with the drive that is to be seen on it. */
export function TakePhoto({ writer, step, of, label = 'Picture' }: Props) {
  const input = useRef<HTMLInputElement>(null)
  const [taken, setTaken] = useState(0)
  const keep = async (file: File) =>
    writer.run({ errand: 'photo', picture: await smaller(file), ...(step ? { step } : {}), ...(of ? { of } : {}) })
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label={of ? `A picture of ${of}` : 'A picture of what you see'}
        onChange={async event => {
          const file = event.currentTarget.files?.[0]
          event.currentTarget.value = ''
          if (file && (await keep(file))) setTaken(taken + 1)
        }}
      />
      <Press variant="subtle" busy={writer.busy} onClick={() => input.current?.click()}>
        {taken === 0 ? label : `Another picture (${taken} kept)`}
      </Press>
    </>
  )
}
