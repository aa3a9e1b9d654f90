/** A QR code from its rows of 1 and 0, dark on light whatever the page's colours: a camera reads no other. */
export function Qr({ rows, says }: { rows: readonly string[]; says: string }) {
  const dark = rows.flatMap((row, y) => [...row].flatMap((module, x) => (module === '1' ? [`M${x} ${y}h1v1h-1z`] : [])))
  return (
    <svg
      role="img"
      aria-label={says}
      viewBox={`0 0 ${rows.length} ${rows.length}`}
      width={240}
      height={240}
      shapeRendering="crispEdges"
      style={{ background: '#fff', borderRadius: 4 }}
    >
      <path d={dark.join('')} fill="#000" />
    </svg>
  )
}
