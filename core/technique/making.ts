import { FIT_KINDS, type FitKind } from '../wear/kind'
import { requireTechnique } from './registry'
import type { Technique } from './technique'

/** How things are made, as a workshop sorts them: each is a door that opens on the techniques behind it. */
export const MAKINGS = [
  { id: 'flat', title: 'Woven bands', says: 'Beads sewn bead to bead, or caught between warps: flat, of any width.' },
  { id: 'round', title: 'Woven tubes', says: 'The same stitches worked round and round, hollow or over a core.' },
  { id: 'braid', title: 'Braids and ropes', says: 'Strands crossed on a disc, or one long string coiled up.' },
  {
    id: 'held',
    title: 'Cords, pins and cuffs',
    says: 'Rows of beads that something stiff or strong holds in a line.',
  },
  { id: 'chain', title: 'Chains', says: 'Rungs and motifs joined one to the next by the way of the thread.' },
  {
    id: 'wire',
    title: 'On wire',
    says: 'Frames, ladders, rings and studs that wire is bent to and beads are strung on.',
  },
  { id: 'hang', title: 'What hangs', says: 'Strands that fall from an ear, a neck or an edge.' },
] as const

export type Making = (typeof MAKINGS)[number]
export type MakingId = Making['id']

/** How a piece in this technique is made. */
export function makingOf(techniqueId: string): Making {
  const { family, round, making = 'chain' } = requireTechnique(techniqueId)
  const id: MakingId = { weave: round ? 'round' : 'flat', braid: 'braid', coil: 'braid', strung: making }[
    family
  ] as MakingId
  return MAKINGS.find((m) => m.id === id)!
}

/** Ropes and tubes are too thick for a finger or a hoop, and have no flat side to lie on a cuff. */
const ROPES: readonly FitKind[] = FIT_KINDS.filter((kind) => !['ring', 'hoop', 'cuff'].includes(kind))

/** Whether something of that kind can be made in a technique. */
export function canBecome(technique: Technique, kind: FitKind): boolean {
  const { kinds, family, round } = technique
  const usual = family === 'weave' && !round ? FIT_KINDS : ROPES
  return (kinds ?? usual).includes(kind)
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
