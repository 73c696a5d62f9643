import { requireTechnique } from './registry'

/** How things are made, as a workshop sorts them. */
export const MAKINGS = [
  { id: 'flat', title: 'Woven flat' },
  { id: 'round', title: 'Woven round' },
  { id: 'braid', title: 'Braided' },
  { id: 'coil', title: 'Coiled' },
  { id: 'strung', title: 'Strung' },
] as const

type Making = (typeof MAKINGS)[number]

/** How a piece in this technique is made. */
export function makingOf(techniqueId: string): Making {
  const { family, round } = requireTechnique(techniqueId)
  const id = family === 'weave' ? (round ? 'round' : 'flat') : family
  return MAKINGS.find((m) => m.id === id)!
}

/**
 * Things in groups by how they are made, in the order of MAKINGS; within a group as they came. Groups with nothing in
 * them are left out.
 */
export function byMaking<T>(
  things: readonly T[],
  techniqueOf: (thing: T) => string,
): { readonly making: Making; readonly things: readonly T[] }[] {
  return MAKINGS.map((making) => ({
    making,
    things: things.filter((t) => makingOf(techniqueOf(t)) === making),
  })).filter((g) => g.things.length > 0)
}
