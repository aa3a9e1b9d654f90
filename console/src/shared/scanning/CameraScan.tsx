import { useEffect, useRef, useState } from 'react'
import { Press } from '../typed/Press'
import { codeReader } from './codeReader'
import './camera.css'

type Props = { found: (text: string) => void; close: () => void }

// Five looks a second: a hand holds still for longer than that, and the phone stays cool.
const everyMs = 200

/** The phone's camera, until a code is in the picture. */
export function CameraScan({ found, close }: Props) {
  const video = useRef<HTMLVideoElement>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const tell = useRef(found)
  tell.current = found // the page is drawn anew while the camera runs; it is not started anew for that
  useEffect(() => {
    let stopped = false
    let stream: MediaStream | undefined
    const look = async () => {
      try {
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } })
        if (stopped || !video.current) return
        video.current.srcObject = stream
        await video.current.play()
        const reader = codeReader()
        while (!stopped && video.current) {
          const [code] = await reader.detect(video.current)
          if (code && !stopped) {
            tell.current(code.rawValue)
            return
          }
          await new Promise(resolve => setTimeout(resolve, everyMs))
        }
      } catch (e) {
        setProblem(`The camera cannot be used: ${e instanceof Error ? e.message : e}. Type the serial instead.`)
      }
    }
    look()
    return () => {
      stopped = true
      for (const track of stream?.getTracks() ?? []) track.stop()
    }
  }, [])
  return (
    <div className="stack">
      {problem ? (
        <p role="alert" className="brick">
          {problem}
        </p>
      ) : (
        <video ref={video} className="camera" playsInline muted aria-label="What the camera sees" />
      )}
      <Press variant="default" onClick={close}>
        Without the camera
      </Press>
    </div>
  )
}
