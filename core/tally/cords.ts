import { discOf, isCounted } from '../piece/nature'
import { bundleDiameter } from '../bead/hole'
import { isCord, requireSpec } from '../bead/spec'
import type { TrayBead } from '../bead/bead'
import { lineAt } from '../grid/lines'
import { laidOf, laidRows } from '../piece/laid'
import { beadOf, columnsOf, SECTIONS, techniqueOf, type Part } from '../piece/piece'
import { DOUBLED_TIMES } from '../technique/disc'

/** One strand of a plain braid. */
interface StrandCord {
  /** Bobbin number, from 1. */
  readonly bobbin: number
  /** Tray number of its cord; 0 for none. */
  readonly number: number
  /** Thickness of the cord, mm; of one cord where two share the slot. */
  readonly diameterMm: number
  readonly doubled: boolean
  /** Whether the grid gives it more than one colour: a cord cannot change. */
  readonly changes: boolean
}

/** The cords of a plain braid, strand by strand, by what is seen of each first; empty for other work. */
export function strandCords(grid: Part, tray: readonly TrayBead[]): StrandCord[] {
  if (isCounted(grid) || laidRows(grid) === 0) return []
  const { part } = laidOf(grid)
  const doubled = discOf(part)?.doubled?.of(part.settings)
  const sections = SECTIONS.filter((s) => part[s].rows > 0 && (s !== 'repeat' || part.times > 0))
  return Array.from({ length: columnsOf(part) }, (_, s) => {
    const number = lineAt(part[sections[0]!], 0)[s]!
    const bead = tray.find((b) => b.number === number)
    const spec = bead ? requireSpec(bead.spec) : beadOf(part)
    const changes = sections.some((name) => {
      const cells = part[name]
      for (let r = 0; r < cells.rows; r++) if (lineAt(cells, r)[s] !== number) return true
      return false
    })
    return {
      bobbin: s + 1,
      number,
      diameterMm: isCord(spec) ? spec.d : beadOf(part).d,
      doubled: doubled?.has(s) ?? false,
      changes,
    }
  })
}

/**
 * Mean thickness of the strands over that of the cord that the braid is reckoned for; two cords in a slot act as one
 * fat cord. 1 for other work.
 */
export function cordScale(part: Part, tray: readonly TrayBead[]): number {
  const cords = strandCords(part, tray)
  if (cords.length === 0) return 1
  return (
    cords.reduce((sum, c) => sum + c.diameterMm * (c.doubled ? DOUBLED_TIMES : 1), 0) / cords.length / beadOf(part).d
  )
}

/** Thread and glue round the bound end of a braid, mm on the diameter (from memory): two layers of fine thread. */
export const BINDING_MM = 0.5

/** How far a braid is bound with thread before it is glued and cut, mm (common practice). */
export const BIND_OVER_MM = { least: 6, most: 10 } as const

interface BoundEnd {
  readonly cords: number
  /** Cords packed in a circle, mm. */
  readonly packedMm: number
  /** With its binding, mm. */
  readonly boundMm: number
  /** Inner diameter of the end cap, mm: the next half millimetre. */
  readonly capMm: number
}

/**
 * The bound end of a braid: its cords, without beads, packed in a circle; cords of different thickness count as so
 * many of their mean section. Null for work that is not braided.
 */
export function boundEnd(part: Part, tray: readonly TrayBead[]): BoundEnd | null {
  const technique = techniqueOf(part)
  if (!technique.disc || laidRows(part) === 0) return null
  const strands = columnsOf(part)
  const diameters = !isCounted(part)
    ? strandCords(part, tray).flatMap((c) => (c.doubled ? [c.diameterMm, c.diameterMm] : [c.diameterMm]))
    : Array<number>(strands).fill(
        technique.path({ columns: strands, rows: 1, bead: beadOf(part), settings: part.settings }).cord?.diameterMm ??
          0,
      )
  const section = Math.sqrt(diameters.reduce((sum, d) => sum + d * d, 0) / diameters.length)
  const packedMm = bundleDiameter(diameters.length, section)
  const boundMm = packedMm + BINDING_MM
  return { cords: diameters.length, packedMm, boundMm, capMm: Math.ceil(boundMm * 2 - 1e-9) / 2 }
}
