import { bundleDiameter } from '../bead/hole'
import { wireDiameterMm } from '../units/wire-gauge'

/** Wire for a simple loop turned on round-nose pliers, mm: the pliers' diameter × π, and 2 mm for the bend (common practice). */
export const loopWireMm = (pliersMm: number): number => pliersMm * Math.PI + 2

/** Wire for one turn of a coil, mm: its middle runs round core and wire together. */
export const coilTurnMm = (coreMm: number, wireMm: number): number => Math.PI * (coreMm + wireMm)

/** Wire for a coil of turns laid side by side over a length, and how many turns these are. */
export function coilWire(lengthMm: number, coreMm: number, gauge: number): { turns: number, wireMm: number } {
  const d = wireDiameterMm(gauge)
  const turns = Math.ceil(lengthMm / d - 1e-9)
  return { turns, wireMm: turns * coilTurnMm(coreMm, d) }
}

/** Gauges that ear wires and posts are made of (common practice). */
export const EAR_WIRE_GAUGES = [20, 22] as const

/** Wire to bend one ear wire by hand, mm (common practice). */
export const EAR_WIRE_MM = 50

/** The thickest wire, by its gauge number, that passes a hole so many times; null if none from 18 to 34 does. Wire does not flatten. */
export function wireThatPasses(holeMm: number, passes: number): number | null {
  for (let gauge = 18; gauge <= 34; gauge++) if (bundleDiameter(passes, wireDiameterMm(gauge)) <= holeMm) return gauge
  return null
}
