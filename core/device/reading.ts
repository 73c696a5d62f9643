/** What a measuring device says, and what is made of it. Grams from a scale, millimetres from a caliper. */
export interface Reading {
  readonly value: number
  readonly steady: boolean
}

/** Readings that are taken before a value is believed. */
export const READINGS = 5

interface Settled {
  /** Middle of the readings: one wild reading does not move it. */
  readonly value: number
  /** Half the distance between least and most of the readings that are near the middle. */
  readonly spread: number
  readonly steady: boolean
}

/**
 * A settled value from several readings; null from none. Steady if most say so and they lie within `within` of each
 * other.
 */
export function settle(readings: readonly Reading[], within: number): Settled | null {
  if (readings.length === 0) return null
  const sorted = readings.map((r) => r.value).sort((a, b) => a - b)
  const middle = sorted[Math.floor((sorted.length - 1) / 2)]!
  const value = sorted.length % 2 ? middle : (middle + sorted[sorted.length / 2]!) / 2
  // A single reading far off is a knock on the table, not the weight.
  const kept = sorted.filter((v) => Math.abs(v - value) <= 4 * within)
  const spread = (kept.at(-1)! - kept[0]!) / 2
  return {
    value,
    spread,
    steady:
      kept.length * 2 > readings.length &&
      spread <= within &&
      readings.filter((r) => r.steady).length * 2 > readings.length,
  }
}

interface Weighed {
  /** Beads without their tube, g; never below 0. */
  readonly grams: number
  readonly count: number
  /** How far the count may be off, from the scale alone. */
  readonly countSpread: number
}

/** Beads in a tube: gross weight less the tube's, and how many that are. */
export function weighed(gross: Settled, tubeGrams: number, perGram: number): Weighed {
  const grams = Math.max(0, Math.round((gross.value - tubeGrams) * 100) / 100)
  return { grams, count: Math.round(grams * perGram), countSpread: Math.ceil(gross.spread * perGram) }
}

/** Steady within so much: grams of a scale that shows hundredths, millimetres of a caliper. */
export const STEADY = { scale: 0.02, caliper: 0.03 } as const
