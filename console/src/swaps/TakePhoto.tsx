import { useRef, useState } from 'react'
import { Press } from '../shared/Press'
import type { RunStep } from '../shared/types'
import type { Writer } from '../tickets'
import { smaller } from './smallerPhoto'

/** A picture from the phone's camera, kept with the step. */
export function TakePhoto({ step, writer }: { step: RunStep; writer: Writer }) {
  const input = useRef<HTMLInputElement>(null)
  const [taken, setTaken] = useState(0)
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label="A picture of what you see"
        onChange={async event => {
          const file = event.currentTarget.files?.[0]
          event.currentTarget.value = ''
          if (file && (await writer.run({ errand: 'photo', picture: await smaller(file), step: step.id }))) setTaken(taken + 1)
        }}
      />
      <Press variant="subtle" busy={writer.busy} onClick={() => input.current?.click()}>
        {taken === 0 ? 'Picture' : `Another picture (${taken} kept)`}
      </Press>
    </>
  )
}
