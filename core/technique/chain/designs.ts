import type { Recipe } from '../../recipe/language'
import { angleBand } from './angle-band'
import { recipeOf, type Design } from './design'
import { edgeLoops } from './edge-loops'
import { lozenges } from './lozenges'
import { medallions } from './medallions'
import { nettedCollar } from './netted-collar'
import { peakedRings } from './peaked-rings'
import { spiralRope } from './spiral-rope'
import { stemmedFlowers } from './stemmed-flowers'

/** Chains of stitched motifs that ship with Weben, in the order in which they are offered. */
export const DESIGNS: readonly Design[] = [
  stemmedFlowers,
  lozenges,
  medallions,
  peakedRings,
  angleBand,
  nettedCollar,
  spiralRope,
  edgeLoops,
]

/** Their recipes, by id. */
export const DESIGN_RECIPES: ReadonlyMap<string, Recipe> = new Map(DESIGNS.map((own) => [own.id, recipeOf(own)]))
