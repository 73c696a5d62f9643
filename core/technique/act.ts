/** What works its way through beads. */
export type CarrierId = 'thread' | 'weft' | 'warp' | 'cord' | 'wire' | 'core' | 'chain'

/**
 * One thing that the hands do. One type for grids and for what is told step by step: what a carrier takes up, which
 * hole it goes through and which way, what it is fixed to. Crossing and turning are no acts of their own: they follow
 * from the holes.
 */
export type Act = { readonly by: CarrierId } & (
  | { readonly do: 'pick'; readonly keys: ArrayLike<number>; readonly hole?: Hole }
  | { readonly do: 'pass'; readonly key: number; readonly hole: Hole; readonly way: 'on' | 'back' }
  | { readonly do: 'fix'; readonly to: string }
  | { readonly do: 'wrap'; readonly round: string; readonly turns: number }
  | { readonly do: 'knot'; readonly mm: number }
  | { readonly do: 'join' }
)

/**
 * A bead with one hole has hole a, and is picked up by it unless something else is said; one with two has b as well,
 * the further from the beginning of the work.
 */
export type Hole = 'a' | 'b'

/** What the hands do in a working row: its acts, or its beads picked up one after the other where it names none. */
export const actsOf = ({
  acts,
  keys,
}: {
  readonly acts?: readonly Act[]
  readonly keys: ArrayLike<number>
}): readonly Act[] => acts ?? [{ do: 'pick', by: 'thread', keys }]

/** Tells `pass` every hole that a list of acts goes through, in order; what is picked up is passed once by that. */
export function eachPass(acts: readonly Act[], pass: (key: number, hole: Hole, by: CarrierId) => void): void {
  for (const act of acts) {
    if (act.do === 'pick') for (let k = 0; k < act.keys.length; k++) pass(act.keys[k]!, act.hole ?? 'a', act.by)
    else if (act.do === 'pass') pass(act.key, act.hole, act.by)
  }
}
