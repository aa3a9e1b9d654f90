import type { Bay, ChassisDrawing, Snapshot } from '../../shared/types'

/** An enclosure to draw: its name, and per drawer the rows; null where there is no bay. */
export type Drawn = { name: string | null; wide: boolean; drawers: (Bay | null)[][][] }

// Fourteen bays abreast leave no room for words; they show what matters and tell the rest when pressed.
const mostWide = 6

/** The bays as one stands before the machine; without a drawing, or one that does not fit, four to a row as they were given. */
export function drawn(drawing: readonly ChassisDrawing[] | null | undefined, snapshot: Snapshot): Drawn[] {
  const labels = new Set(drawing?.flatMap(e => e.drawers.flat(2)).filter(l => l !== ''))
  if (!drawing || snapshot.bays.some(b => !labels.has(b.label))) return [{ name: null, wide: true, drawers: [inFours(snapshot.bays)] }]
  const byLabel = new Map(snapshot.bays.map(bay => [bay.label, bay]))
  return drawing.map(enclosure => ({
    name: enclosure.enclosure,
    wide: (enclosure.drawers[0]?.[0]?.length ?? 1) <= mostWide,
    drawers: enclosure.drawers.map(rows =>
      rows.map(row =>
        row.map(label => (label === '' ? null : (byLabel.get(label) ?? { label, role: 'not-known' as const, health: 'unknown' as const }))),
      ),
    ),
  }))
}

const inFours = (bays: readonly Bay[]): Bay[][] =>
  Array.from({ length: Math.ceil(bays.length / 4) }, (_, row) => bays.slice(row * 4, row * 4 + 4))
