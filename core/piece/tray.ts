import { nextOnTray, type TrayBead } from '../bead/bead'
import type { Coloured } from '../bead/substitute'
import type { Piece } from './piece'
import { LIMITS } from './schema'
import { usesNumber, type Step } from './step'

/** Changes of the tray as a whole: its order, what is not used, palettes. */

/** Puts the bead at place `from` of the tray at place `to`. */
export function moveBeadSteps(piece: Piece, from: number, to: number): Step[] {
  const bead = piece.tray[from]
  if (!bead || from === to) return []
  return [
    { type: 'tray', do: 'remove', at: from, bead },
    { type: 'tray', do: 'insert', at: to, bead },
  ]
}

/** Takes off the tray what no cell of any part holds; one bead stays in any case. */
export function clearUnusedSteps(piece: Piece): Step[] {
  const unused = piece.tray.filter((b) => !usesNumber(piece, b.number))
  const gone = unused.length === piece.tray.length ? unused.slice(1) : unused
  const tray = [...piece.tray]
  return gone.map((bead) => {
    const at = tray.indexOf(bead)
    tray.splice(at, 1)
    return { type: 'tray', do: 'remove', at, bead }
  })
}

export const sameLook = (a: Coloured, b: Coloured): boolean =>
  a.colour === b.colour && a.finish === b.finish && a.spec === b.spec

/** Puts beads of a palette on the tray that are not there yet, as many as it holds; says how many found no room. */
export function addBeadsSteps(
  piece: Piece,
  beads: readonly Coloured[],
): { readonly steps: Step[]; readonly left: number } {
  const tray: TrayBead[] = [...piece.tray]
  const steps: Step[] = []
  let left = 0
  for (const look of beads) {
    if (tray.some((b) => sameLook(b, look))) continue
    if (tray.length >= LIMITS.tray) {
      left++
      continue
    }
    const bead = { ...nextOnTray(tray), ...look }
    steps.push({ type: 'tray', do: 'insert', at: tray.length, bead })
    tray.push(bead)
  }
  return { steps, left }
}
