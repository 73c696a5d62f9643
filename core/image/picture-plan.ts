import { keyOf, placeOfKey } from '../grid/key'
import { nextOnTray, type Finish, type TrayBead } from '../bead/bead'
import type { Coloured } from '../bead/substitute'
import { layingSteps } from '../piece/edit'
import { columnsOf, type Part, type Piece } from '../piece/piece'
import type { Step } from '../piece/step'
import { neighbourOffsets, siteIndexOf, type Box, type Lattice } from '../technique/lattice'
import { matchCells, meanDeltaE, paletteLab, tidied, type Dither } from './match'
import { chooseColours, toOkLab } from './quantise'
import { sampleCells, type Pixels, type SampleWish } from './sample'

export interface PictureWish {
  readonly sample: SampleWish
  /** Colours to use, or how many to choose from the picture. */
  readonly to:
    | { readonly kind: 'colours'; readonly colours: readonly string[] }
    | { readonly kind: 'choose'; readonly count: number }
  readonly dither: Dither
  readonly tidy: boolean
}

/** A picture as beads: plain data, so that a worker can send it. */
export interface PictureBeads {
  readonly columns: number
  readonly rows: number
  /** Index of each cell's colour from 1, row-major; 0 for none. */
  readonly numbers: Uint16Array
  readonly colours: readonly string[]
  /** Beads of each colour. */
  readonly counts: readonly number[]
  /** Mean colour difference ΔE00 between picture and beads. */
  readonly meanDeltaE: number
}

/** Makes beads of a picture. `progress` is told 0 … 1. */
export function pictureBeads(
  pixels: Pixels,
  lattice: Lattice,
  { sample, to, dither, tidy }: PictureWish,
  progress: (share: number) => void = () => {},
): PictureBeads {
  const { columns, rows } = sample.box
  const cells = sampleCells(pixels, lattice, sample, (s) => progress(0.45 * s))
  const lab = toOkLab(cells)
  progress(0.5)
  const colours = to.kind === 'colours' ? to.colours : chooseColours(lab, to.count)
  progress(0.6)
  let numbers = matchCells(lab, columns, rows, paletteLab(colours), dither, (s) => progress(0.6 + 0.3 * s))
  if (tidy) {
    const { period } = lattice
    const offsets = Array.from({ length: period.columns * period.rows }, (_, i) => {
      const site = placeOfKey(period.columns, i)
      return neighbourOffsets(lattice, site.c, site.r)
    })
    numbers = tidied(numbers, columns, (c, r) => offsets[siteIndexOf(period, c + sample.box.c, r + sample.box.r)]!)
  }
  const counts = new Array<number>(colours.length).fill(0)
  for (const number of numbers) if (number > 0) counts[number - 1]!++
  progress(0.95)
  return { columns, rows, numbers, colours, counts, meanDeltaE: meanDeltaE(cells, numbers, colours) }
}

/** A bead for each colour that is used: one that is on the tray already, or a new one made by `looks`. */
function beadsFor(
  piece: Piece,
  beads: PictureBeads,
  looks: (index: number) => Omit<TrayBead, 'number' | 'letter' | 'glyph'> | number,
): { numbers: number[]; steps: Step[] } {
  const tray: TrayBead[] = [...piece.tray]
  const steps: Step[] = []
  const numbers = beads.colours.map((_, i) => {
    if (beads.counts[i] === 0) return 0
    const look = looks(i)
    if (typeof look === 'number') return look
    const there = tray.find((b) => b.colour === look.colour && b.finish === look.finish && b.spec === look.spec)
    if (there) return there.number
    const bead: TrayBead = { ...nextOnTray(tray), ...look }
    steps.push({ type: 'tray', do: 'insert', at: tray.length, bead })
    tray.push(bead)
    return bead.number
  })
  return { numbers, steps }
}

export type PictureTarget =
  | { readonly kind: 'tray'; readonly numbers: readonly number[] }
  | { readonly kind: 'box'; readonly beads: readonly Coloured[] }
  | { readonly kind: 'choose'; readonly finish: Finish }

/**
 * Steps that lay a picture's beads in a box of the part, new beads put on the tray first; together one step to undo.
 */
export function pictureSteps(piece: Piece, part: Part, box: Box, beads: PictureBeads, target: PictureTarget): Step[] {
  const { numbers, steps } = beadsFor(piece, beads, (i) => {
    if (target.kind === 'tray') return target.numbers[i]!
    if (target.kind === 'box') {
      const { name, colour, finish } = target.beads[i]!
      return { name, colour, finish, spec: part.spec }
    }
    return { name: `Picture ${i + 1}`, colour: beads.colours[i]!, finish: target.finish, spec: part.spec }
  })
  const laying = new Map<number, number>()
  const columns = columnsOf(part)
  for (let r = 0; r < beads.rows; r++) {
    for (let c = 0; c < beads.columns; c++) {
      const at = { c: box.c + c, r: box.r + r }
      if (at.c >= columns) continue
      const index = beads.numbers[keyOf(beads.columns, c, r)]!
      laying.set(keyOf(columns, at.c, at.r), index === 0 ? 0 : numbers[index - 1]!)
    }
  }
  return [...steps, ...layingSteps(part, laying)]
}
