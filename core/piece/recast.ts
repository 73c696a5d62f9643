import { requireTechnique } from '../technique/registry'
import { columnsForWidth } from './begin'
import { insertColumnsStep, removeColumnsStep, setStep } from './edit'
import { columnsOf, rowsOf, type Part, type Piece } from './piece'
import type { Step } from './step'

/** Changes of how a part is made. The pattern stays bead for bead; what its size becomes follows. */

/** How many columns at a time a part can be widened or narrowed by. */
export function columnStepOf(part: Part): number {
  const technique = requireTechnique(part.technique)
  const now = columnsOf(part)
  const work = { rows: Math.max(2, rowsOf(part)), settings: part.settings }
  for (let n = 1; n <= 14; n++) if (technique.check({ ...work, columns: now + n }).length === 0) return n
  return 1
}

/** Makes the part `columns` across: new ones are put on at the right edge in the bead `number`, surplus ones come off there. */
export function widthSteps(part: Part, columns: number, number: number): Step[] {
  const now = columnsOf(part)
  if (columns > now) return [insertColumnsStep(part, now, columns - now, number)]
  return columns < now && columns > 0 ? [removeColumnsStep(part, columns, now - columns)] : []
}

/** Moves the part to another stitch. A count across that the stitch forbids is brought to the nearest that it allows. */
export function stitchSteps(piece: Piece, part: Part, technique: string, number: number): Step[] {
  if (technique === part.technique) return []
  const next = requireTechnique(technique)
  const { start } = part.settings
  const settings = next.settings.safeParse(start === undefined ? {} : { start })
  const own = settings.success ? settings.data : next.settings.parse({})
  return [
    ...widthSteps(part, next.nearestColumns(columnsOf(part), own), number),
    setStep(piece, ['parts', part.id, 'technique'], technique),
    setStep(piece, ['parts', part.id, 'settings'], { ...own }),
  ]
}

/** Makes the part of another size of bead: the grid is drawn for it, and every bead of the tray of the old size becomes one of the new. */
export function specSteps(piece: Piece, part: Part, spec: string): Step[] {
  if (spec === part.spec) return []
  return [
    setStep(piece, ['parts', part.id, 'spec'], spec),
    ...piece.tray.filter(b => b.spec === part.spec).map(b => setStep(piece, ['tray', b.number, 'spec'], spec)),
  ]
}

/** Beads across that come nearest to the width wanted. */
export const columnsWanted = (part: Part, widthMm: number): number => columnsForWidth(part.technique, part.settings, part.spec, widthMm)
