import { mmFromInch } from './length'

/**
 * Ring sizes by inside circumference in mm, which is the ISO size itself (ISO 8653). United States: inside diameter =
 * 0.458 in + 0.032 in × size. British letters (BS 6820): C is 40.0 mm round, 1.25 mm a letter, halves between.
 */
interface RingSize {
  /** Inside circumference, mm: the ISO size. */
  readonly iso: number
  readonly diameterMm: number
  /** United States size to the nearest quarter. */
  readonly us: number
  /** British letter to the nearest half; beyond Z counted on as Z+1, Z+2 …. */
  readonly gb: string
}

const US_ZERO_MM = mmFromInch(0.458)
const US_STEP_MM = mmFromInch(0.032)

/** Half a United States size in inside circumference, mm: what a wide band is made larger by. */
export const HALF_US_SIZE_MM = (Math.PI * US_STEP_MM) / 2

export const isoFromUs = (size: number): number => Math.PI * (US_ZERO_MM + US_STEP_MM * size)
export const usFromIso = (iso: number): number => (iso / Math.PI - US_ZERO_MM) / US_STEP_MM

const LETTER_MM = 1.25
const A_MM = 40 - 2 * LETTER_MM

/** Inside circumference of a British letter, mm: `L`, `L 1/2`, `Z+2`. Null if it is no such size. */
export function isoFromGb(size: string): number | null {
  const match = /^([A-Z])(?:\+(\d{1,2}))?\s*(½|1\/2)?$/.exec(size.trim().toUpperCase())
  if (!match || (match[2] !== undefined && match[1] !== 'Z')) return null
  const letters = match[1]!.charCodeAt(0) - 65 + Number(match[2] ?? 0) + (match[3] ? 0.5 : 0)
  return A_MM + LETTER_MM * letters
}

/** The British letter nearest to an inside circumference, to the half; sizes below A are `under A`. */
export function gbFromIso(iso: number): string {
  const halves = Math.round(((iso - A_MM) / LETTER_MM) * 2)
  if (halves < 0) return 'under A'
  const letters = Math.floor(halves / 2)
  return `${letters <= 25 ? String.fromCharCode(65 + letters) : `Z+${letters - 25}`}${halves % 2 ? ' ½' : ''}`
}

/** All three systems for an inside circumference in mm. */
export const ringSize = (iso: number): RingSize => ({
  iso,
  diameterMm: iso / Math.PI,
  us: Math.round(usFromIso(iso) * 4) / 4,
  gb: gbFromIso(iso),
})
