import { Button } from '@mantine/core'
import { type PointerEvent, type Ref, useEffect, useImperativeHandle, useRef, useState } from 'react'

/** What was written on the glass. */
export interface Glass {
  /** A PNG, black on white; null where nobody has written. */
  picture: () => Promise<Blob | null>
}

const ink = 2.5

/** A white sheet, and a black pen: a signature is printed, and so black on white by night as well. */
function blank(pad: HTMLCanvasElement) {
  const pen = pad.getContext('2d')
  if (!pen) return false
  const scale = window.devicePixelRatio || 1
  pad.width = pad.clientWidth * scale
  pad.height = pad.clientHeight * scale
  pen.scale(scale, scale)
  pen.fillStyle = '#fff'
  pen.fillRect(0, 0, pad.clientWidth, pad.clientHeight)
  pen.strokeStyle = '#000'
  pen.lineWidth = ink
  pen.lineCap = 'round'
  return true
}

const place = (event: PointerEvent<HTMLCanvasElement>) => {
  const box = event.currentTarget.getBoundingClientRect()
  return { x: event.clientX - box.left, y: event.clientY - box.top }
}

/** A field that a finger, a pen or a mouse writes in. Whoever cannot has the name written down by the engineer instead. */
export function GlassPad({ ref }: { ref: Ref<Glass> }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [written, setWritten] = useState(false)
  const last = useRef<{ x: number; y: number } | null>(null)

  const clear = () => {
    if (canvas.current && blank(canvas.current)) setWritten(false)
  }
  useEffect(clear, [])

  useImperativeHandle(ref, () => ({
    picture: () => new Promise<Blob | null>(done => (written && canvas.current ? canvas.current.toBlob(done, 'image/png') : done(null))),
  }))

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
