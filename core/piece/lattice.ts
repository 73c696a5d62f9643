import { transpose, type Lattice } from '../technique/lattice'
import type { Settings } from '../technique/technique'
import { beadOf, columnsOf, techniqueOf, type Part } from './piece'

/**
 * Lattices by the settings they follow from: edits of cells keep the settings, so a lattice is worked out once for a
 * part.
 */
const lattices = new WeakMap<Settings, Map<string, { readonly down: Lattice; readonly along: Lattice }>>()

function bothLattices(part: Part): { readonly down: Lattice; readonly along: Lattice } {
  let known = lattices.get(part.settings)
  if (!known) {
    known = new Map()
    lattices.set(part.settings, known)
  }
  const key = `${part.technique} ${part.spec} ${columnsOf(part)} ${part.chart ?? ''}`
  let both = known.get(key)
  if (!both) {
    const down = techniqueOf(part).lattice({
      bead: beadOf(part),
      settings: part.settings,
      columns: columnsOf(part),
      ...(part.chart ? { chart: part.chart } : {}),
    })
    both = { down, along: transpose(down) }
    known.set(key, both)
  }
  return both
}

export const latticeOf = (part: Part): Lattice => bothLattices(part).down

/** The lattice with the length of the work along x. */
export const latticeAlong = (part: Part): Lattice => bothLattices(part).along

/**
 * Whether the cells of a part lie scattered on an unrolled rope, so that columns and rows are no lines on the screen.
 */
export const isScattered = (part: Part): boolean =>
  latticeOf(part).touching !== undefined && latticeOf(part).round === true
