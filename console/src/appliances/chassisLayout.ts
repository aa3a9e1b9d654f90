import type { Bay, Model, Snapshot } from '../shared/types'

/** The printed label at a row and column, both from 0 at the top left. Labels need not run along the rows. */
export function labelAt(model: Pick<Model, 'rows' | 'columns' | 'bayOrder'>, row: number, column: number): string {
  return String(model.bayOrder === 'along-rows' ? row * model.columns + column + 1 : column * model.rows + row + 1)
}

/** The bays row by row as one stands before the machine; null where the drawing does not fit what was seen. */
export function rowsOf(model: Model | null, snapshot: Snapshot): Bay[][] | null {
  if (!model) return null
  const byLabel = new Map(snapshot.bays.map(bay => [bay.label, bay]))
  const rows: Bay[][] = []
  for (let row = 0; row < model.rows; row++) {
    const bays: Bay[] = []
    for (let column = 0; column < model.columns; column++) {
      const bay = byLabel.get(labelAt(model, row, column))
      if (!bay) return null
      bays.push(bay)
    }
    rows.push(bays)
  }
  return rows
}
