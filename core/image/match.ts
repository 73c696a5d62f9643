import { keyOf } from '../grid/key'
import { deltaE00 } from '../colour/ciede2000'
import { cieLab, LINEAR, okLab } from '../colour/spaces'
import { rgbOf } from '../colour/colour'
import { LENGTH_8, BAYER_8 } from '../pattern/bayer'
import { nearestIn, nearestInOkLab } from './nearest'

export type Dither = 'off' | 'ordered' | 'diffused'

/** OKLab of colours `#rrggbb`, three numbers each. */
export function paletteLab(colours: readonly string[]): Float32Array {
  const out = new Float32Array(colours.length * 3)
  colours.forEach((hex, i) => {
    const { r, g, b } = rgbOf(hex)
    okLab(LINEAR[r]!, LINEAR[g]!, LINEAR[b]!, out, 3 * i)
  })
  return out
}

/** Mean distance from each colour of a palette to its nearest other: how far an ordered mix has to reach. */
function reachOf(palette: Float32Array): number {
  let sum = 0
  for (let i = 0; i < palette.length; i += 3) {
    let least = Infinity
    for (let j = 0; j < palette.length; j += 3) {
      if (i !== j)
        least = Math.min(
          least,
          Math.hypot(palette[i]! - palette[j]!, palette[i + 1]! - palette[j + 1]!, palette[i + 2]! - palette[j + 2]!),
        )
    }
    sum += least === Infinity ? 0 : least
  }
  return palette.length === 0 ? 0 : sum / (palette.length / 3)
}

/**
 * The colour of the palette that stands for each cell, as its index from 1; 0 where the picture has none. Nearest is
 * by ΔE00; of an even mix, in OKLab, where its thresholds are. Diffused: the error goes on to four neighbours (Floyd
 * and Steinberg 1976), every other row from the other side.
 */
export function matchCells(
  lab: Float32Array,
  columns: number,
  rows: number,
  palette: Float32Array,
  dither: Dither,
  progress: (share: number) => void = () => {},
): Uint16Array {
  const out = new Uint16Array(columns * rows)
  if (palette.length === 0) return out
  if (dither === 'diffused') return diffused(lab, columns, rows, palette, out, progress)
  const reach = dither === 'ordered' ? reachOf(palette) : 0
  const nearest = reach > 0 ? nearestInOkLab(palette) : nearestIn(palette)
  for (let r = 0; r < rows; r++) {
    if (r % 64 === 0) progress(r / rows)
    for (let c = 0; c < columns; c++) {
      const key = keyOf(columns, c, r)
      const L = lab[3 * key]!
      if (L < 0) continue
      const shift = reach === 0 ? 0 : (BAYER_8[(r % LENGTH_8) * LENGTH_8 + (c % LENGTH_8)]! - 0.5) * reach
      out[key] = nearest(L + shift, lab[3 * key + 1]!, lab[3 * key + 2]!) + 1
    }
  }
  return out
}

function diffused(
  lab: Float32Array,
  columns: number,
  rows: number,
  palette: Float32Array,
  out: Uint16Array,
  progress: (share: number) => void,
): Uint16Array {
  const nearest = nearestIn(palette, true)
  // Errors of this row and the next, with a cell of room at both ends.
  let here = new Float32Array((columns + 2) * 3)
  let next = new Float32Array((columns + 2) * 3)
  for (let r = 0; r < rows; r++) {
    if (r % 64 === 0) progress(r / rows)
    const forward = r % 2 === 0
    const ahead = forward ? 3 : -3
    for (let k = 0; k < columns; k++) {
      const c = forward ? k : columns - 1 - k
      const at = keyOf(columns, c, r) * 3
      const e = (c + 1) * 3
      if (lab[at]! < 0) continue
      const L = lab[at]! + here[e]!
      const a = lab[at + 1]! + here[e + 1]!
      const b = lab[at + 2]! + here[e + 2]!
      const i = nearest(L, a, b)
      out[keyOf(columns, c, r)] = i + 1
      for (let j = 0; j < 3; j++) {
        const error = (j === 0 ? L : j === 1 ? a : b) - palette[3 * i + j]!
        here[e + ahead + j]! += (error * 7) / 16
        next[e - ahead + j]! += (error * 3) / 16
        next[e + j]! += (error * 5) / 16
        next[e + ahead + j]! += error / 16
      }
    }
    ;[here, next] = [next, here]
    next.fill(0)
  }
  return out
}

/**
 * Beads that no touching bead is like take the commonest colour round them. Works from what was there before, so its
 * order does not matter.
 */
export function tidied(
  numbers: Uint16Array,
  columns: number,
  neighbours: (c: number, r: number) => readonly { readonly c: number; readonly r: number }[],
): Uint16Array {
  const out = numbers.slice()
  const rows = numbers.length / columns
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const own = numbers[keyOf(columns, c, r)]!
      const seen = new Map<number, number>()
      let alone = own !== 0
      for (const o of neighbours(c, r)) {
        const [nc, nr] = [c + o.c, r + o.r]
        if (nc < 0 || nr < 0 || nc >= columns || nr >= rows) continue
        const number = numbers[keyOf(columns, nc, nr)]!
        if (number === own) {
          alone = false
          break
        }
        if (number !== 0) seen.set(number, (seen.get(number) ?? 0) + 1)
      }
      if (!alone || seen.size === 0) continue
      out[keyOf(columns, c, r)] = [...seen].sort((a, b) => b[1] - a[1] || a[0] - b[0])[0]![0]
    }
  }
  return out
}

const MOST_COMPARED = 100_000

/**
 * Mean colour difference ΔE00 between the wanted colours of cells (linear sRGB) and those of their beads; every n-th
 * cell of many.
 */
export function meanDeltaE(cells: Float32Array, numbers: Uint16Array, colours: readonly string[]): number {
  const beads = new Float64Array(colours.length * 3)
  colours.forEach((hex, i) => {
    const { r, g, b } = rgbOf(hex)
    cieLab(LINEAR[r]!, LINEAR[g]!, LINEAR[b]!, beads, 3 * i)
  })
  const wanted = new Float64Array(3)
  const step = Math.max(1, Math.ceil(numbers.length / MOST_COMPARED))
  let [sum, count] = [0, 0]
  for (let k = 0; k < numbers.length; k += step) {
    const number = numbers[k]!
    if (number === 0 || cells[3 * k]! < 0) continue
    cieLab(cells[3 * k]!, cells[3 * k + 1]!, cells[3 * k + 2]!, wanted, 0)
    const i = 3 * (number - 1)
    sum += deltaE00(wanted[0]!, wanted[1]!, wanted[2]!, beads[i]!, beads[i + 1]!, beads[i + 2]!)
    count++
  }
  return count === 0 ? 0 : sum / count
}
