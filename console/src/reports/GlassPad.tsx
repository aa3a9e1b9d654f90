import { Button } from '@mantine/core'
import { type PointerEvent, type Ref, useEffect, useImperativeHandle, useRef, useState } from 'react'

/** What was written on the glass. */
export interface Glass {
  /** A PNG, black on white; null where nobody has written. */
  picture: () => Promise<Blob | null>
}

const ink = 2.5

/** A field that a finger, a pen or a mouse writes in. Whoever cannot has the name written down by the engineer instead. */
export function GlassPad({ ref }: { ref: Ref<Glass> }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [written, setWritten] = useState(false)
  const last = useRef<{ x: number; y: number } | null>(null)

  const clear = () => {
    const pad = canvas.current
    const pen = pad?.getContext('2d')
    if (!pad || !pen) return
    const scale = window.devicePixelRatio || 1
    pad.width = pad.clientWidth * scale
    pad.height = pad.clientHeight * scale
    pen.scale(scale, scale)
    pen.fillStyle = '#fff' // a signature is printed: black on white by night as well
    pen.fillRect(0, 0, pad.clientWidth, pad.clientHeight)
    pen.strokeStyle = '#000'
    pen.lineWidth = ink
    pen.lineCap = 'round'
    setWritten(false)
  }
  useEffect(clear, [])

  useImperativeHandle(ref, () => ({
    picture: () => new Promise<Blob | null>(done => (written && canvas.current ? canvas.current.toBlob(done, 'image/png') : done(null))),
  }))

  const place = (event: PointerEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    return { x: event.clientX - box.left, y: event.clientY - box.top }
  }
  const draw = (event: PointerEvent<HTMLCanvasElement>) => {
    const pen = event.currentTarget.getContext('2d')
    if (!last.current || !pen) return
    const to = place(event)
    pen.beginPath()
    pen.moveTo(last.current.x, last.current.y)
    pen.lineTo(to.x, to.y)
    pen.stroke()
    last.current = to
    setWritten(true)
  }
  return (
    <div>
      <div className="sign-label" id="glass">
        Sign here
      </div>
      <canvas
        ref={canvas}
        className="sign-glass"
        role="img"
        aria-labelledby="glass"
        onPointerDown={event => {
          event.currentTarget.setPointerCapture(event.pointerId)
          last.current = place(event)
        }}
        onPointerMove={draw}
        onPointerUp={() => {
          last.current = null
        }}
        onPointerCancel={() => {
          last.current = null
        }}
      />
      <Button variant="default" size="xs" onClick={clear}>
        Clear the field
      </Button>
    </div>
  )
}
