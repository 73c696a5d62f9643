import type { Technique } from './technique'
import { loom } from './weave/loom'
import { peyote } from './weave/peyote'

/** Every technique, in the order in which it is offered. A new stitch is one more line here. */
export const TECHNIQUES: readonly Technique[] = [peyote, loom]

const BY_ID = new Map(TECHNIQUES.map(t => [t.id, t]))

export const findTechnique = (id: string): Technique | undefined => BY_ID.get(id)

export function requireTechnique(id: string): Technique {
  const found = BY_ID.get(id)
  if (!found) throw new Error(`no technique has the id ${JSON.stringify(id)}`)
  return found
}
