import { bundleDiameter } from '../bead/hole'
import { wireDiameterMm } from '../units/wire-gauge'

/** Wire for one turn of a coil, mm: its middle runs round core and wire together. */
export const coilTurnMm = (coreMm: number, wireMm: number): number => Math.PI * (coreMm + wireMm)

/**
 * Length of one turn of a helix, mm: √((π (D + d))² + p²) for a core D, a wire or thread d and a pitch p along the
 * core (arc length of a helix through the middle of the wire).
 */
export const helixTurnMm = (coreMm: number, wireMm: number, pitchMm: number): number =>
  Math.hypot(coilTurnMm(coreMm, wireMm), pitchMm)

/** Wire for a coil over a length, and its turns: laid side by side, or opened to a pitch. */
export function coilWire(
  lengthMm: number,
  coreMm: number,
  gauge: number,
  pitchMm = 0,
): { turns: number; wireMm: number } {
  const d = wireDiameterMm(gauge)
  const pitch = Math.max(d, pitchMm)
  const turns = Math.ceil(lengthMm / pitch - 1e-9)
  return { turns, wireMm: turns * helixTurnMm(coreMm, d, pitch) }
}

/** Gauges that ear wires and posts are made of (common practice). */
export const EAR_WIRE_GAUGES = [20, 22] as const

/** Wire to bend one ear wire by hand, mm (common practice). */
export const EAR_WIRE_MM = 50

/**
 * The thickest wire, by its gauge number, that passes a hole so many times; null if none from 18 to 34 does. Wire does
 * not flatten.
 */
export function wireThatPasses(holeMm: number, passes: number): number | null {
  for (let gauge = 18; gauge <= 34; gauge++) if (bundleDiameter(passes, wireDiameterMm(gauge)) <= holeMm) return gauge
  return null
}
