import { bundleDiameter } from '../bead/hole'

/** Pins, loops and rings of wire. Lengths in mm; a wire `a` thick, pliers `q` across where the loop is turned. */

/**
 * Wire for a simple loop turned on round-nose pliers: the pliers’ diameter × π, and 2 mm for the bend (common
 * practice).
 */
export const loopWireMm = (pliersMm: number): number => pliersMm * Math.PI + 2

/** What is left to hold while a loop is wrapped, mm. */
const HOLD_MM = 5
/** Neck between the bead and a wrapped loop, mm. */
const NECK_MM = 1.5

/** Wire for a wrapped loop of so many turns: neck, loop, turns round the neck, and something to hold. */
export const wrappedLoopMm = (pliersMm: number, wireMm: number, turns: number): number =>
  NECK_MM + Math.PI * (pliersMm + wireMm) + turns * 2 * Math.PI * wireMm + HOLD_MM

/** How far a loop stands above the beads: from these to the middle of the loop. */
export const loopHeightMm = (pliersMm: number, wireMm: number, wrapped: boolean): number =>
  (wrapped ? NECK_MM + 2 * wireMm : 0) + (pliersMm + wireMm) / 2

/** Lengths in which pins are sold, mm (from memory). */
export const STOCK_PINS_MM = [20, 25, 30, 35, 40, 45, 50, 60, 70] as const

/** The shortest pin that is sold and long enough; null where none is. */
export const stockPin = (needMm: number): number | null => STOCK_PINS_MM.find((mm) => mm >= needMm - 1e-9) ?? null

/** A headpin’s head, mm across (from memory: 1.5 to 2): a hole that is wider slips over it. */
export const PIN_HEAD_MM = 1.8

/** Whether wire goes through a hole so many times: it does not flatten. */
export const wirePasses = (holeMm: number, wireMm: number, passes = 1): boolean =>
  bundleDiameter(passes, wireMm) <= holeMm + 1e-9
