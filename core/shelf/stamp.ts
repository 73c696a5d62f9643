import { nextOnTray, type TrayBead } from '../bead/bead'
import { LEAVE, type Clip } from '../pattern/clip'
import { trayByNumber, type Part, type Piece } from '../piece/piece'
import type { Step } from '../piece/step'
import type { Stamp } from './shelf'

/**
 * A copied piece of pattern as a stamp: it carries the looks of its beads, so that it can be laid in another piece.
 */
export function stampOf(piece: Piece, part: Part, clip: Clip, name: string): Stamp {
  const tray = trayByNumber(piece.tray)
  const numbers = [...new Set(clip.numbers)].filter((n) => n > 0)
  const at = new Map(numbers.map((number, k) => [number, k + 1]))
  return {
    kind: 'stamp',
    name,
    technique: part.technique,
    columns: clip.columns,
    rows: clip.rows,
    cells: clip.numbers.map((n) => at.get(n) ?? 0),
    beads: numbers.map((number) => {
      const { name: own, spec, colour, finish } = tray.get(number)!
      return { name: own, spec, colour, finish }
    }),
  }
}

/**
 * A stamp for another piece: the clip to set down, and the steps that put on its tray what it lacks. A bead of the
 * same colour and finish is taken for the stamp's own whatever its size; new ones are of the size that the part is
 * made of.
 */
export function stampFor(
  piece: Piece,
  part: Part,
  stamp: Stamp,
): { readonly clip: Clip; readonly steps: readonly Step[] } {
  const tray: TrayBead[] = [...piece.tray]
  const steps: Step[] = []
  const numbers = stamp.beads.map((own) => {
    const there = tray.find((b) => b.colour === own.colour && b.finish === own.finish)
    if (there) return there.number
    const bead: TrayBead = {
      ...nextOnTray(tray),
      name: own.name,
      spec: part.spec,
      colour: own.colour,
      finish: own.finish,
    }
    steps.push({ type: 'tray', do: 'insert', at: tray.length, bead })
    tray.push(bead)
    return bead.number
  })
  return {
    clip: {
      columns: stamp.columns,
      rows: stamp.rows,
      c: 0,
      r: 0,
      numbers: stamp.cells.map((n) => (n > 0 ? numbers[n - 1]! : LEAVE)),
    },
    steps,
  }
}
