import type { GlyphId } from './glyph'
import { GLYPH_IDS } from './glyph'

/** Draw them apart: matte has no highlight, metallic a hard one, transparent shows the mat. */
export const FINISHES = ['opaque', 'matte', 'lustre', 'metallic', 'transparent', 'lined', 'rainbow'] as const

export type Finish = (typeof FINISHES)[number]

/** One bead of the tray: a spec in one colour and finish, with the letter and glyph that stand for it in charts. */
export interface TrayBead {
  /** What stands for it in cells: 1 … 65 535; stays when the tray is put in another order. */
  readonly number: number
  readonly letter: string
  readonly glyph: GlyphId
  readonly name: string
  readonly spec: string
  /** sRGB, `#rrggbb`. */
  readonly colour: string
  readonly finish: Finish
}

/** A, B, … Z, AA, AB, …: the n-th letter from 0. */
export function trayLetter(n: number): string {
  return n < 26 ? String.fromCharCode(65 + n) : trayLetter(Math.floor(n / 26) - 1) + String.fromCharCode(65 + (n % 26))
}

/**
 * The number, letter and glyph that a new bead on this tray gets: the first that are free (glyphs begin again when all
 * are used).
 */
export function nextOnTray(tray: readonly TrayBead[]): Pick<TrayBead, 'number' | 'letter' | 'glyph'> {
  const numbers = new Set(tray.map((b) => b.number))
  const letters = new Set(tray.map((b) => b.letter))
  const glyphs = new Set<GlyphId>(tray.map((b) => b.glyph))
  let number = 1
  while (numbers.has(number)) number++
  let n = 0
  while (letters.has(trayLetter(n))) n++
  return {
    number,
    letter: trayLetter(n),
    glyph: GLYPH_IDS.find((g) => !glyphs.has(g)) ?? GLYPH_IDS[tray.length % GLYPH_IDS.length]!,
  }
}
