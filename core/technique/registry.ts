import { braid12, braid16, braid8 } from './braid/round'
import { cordBraid } from './braid/cord'
import { braid7, braidOwn } from './braid/table'
import { cordLadder } from './carrier/cord-ladder'
import { cuffRibs } from './carrier/cuff-ribs'
import { pins } from './carrier/pins'
import { rungLadder } from './carrier/rung-ladder'
import { design } from './chain/design'
import { DESIGNS } from './chain/designs'
import { ownRecipe } from './chain/own-recipe'
import { coiledRope } from './coil/coiled-rope'
import { GUESTS } from './guests'
import { dangles } from './hang/dangles'
import { finding } from './hang/finding'
import { fringe } from './hang/fringe'
import { gridTechnique, type Stitch } from './stitch'
import { lineTechnique, type Strung } from './strung'
import type { Technique } from './technique'
import { brick, tubularBrick } from './weave/brick'
import { herringbone, tubularHerringbone } from './weave/herringbone'
import { ladder } from './weave/ladder'
import { loom } from './weave/loom'
import { netting } from './weave/netting'
import { dropPeyote, oddPeyote, peyote } from './weave/peyote'
import { rightAngle } from './weave/right-angle'
import { square } from './weave/square'
import { spiralPeyote, tubularPeyote } from './weave/tubular-peyote'
import { flowerOnWire } from './wire/flower-on-wire'
import { frame } from './wire/frame'
import { wireLadder } from './wire/ladder'
import { smallShape } from './wire/small-shape'
import { tileRing } from './wire/tile-ring'
import { woundRowsOnWire } from './wire/wound-rows'

const STITCHES: readonly Stitch[] = [
  peyote,
  oddPeyote,
  dropPeyote,
  loom,
  square,
  brick,
  ladder,
  herringbone,
  rightAngle,
  netting,
  tubularPeyote,
  spiralPeyote,
  tubularBrick,
  tubularHerringbone,
  braid8,
  braid12,
  braid16,
  braid7,
  braidOwn,
  cordBraid,
  coiledRope,
]

const LINES: readonly Strung[] = [
  ...[rungLadder, cordLadder, pins, cuffRibs],
  ...DESIGNS.map(design),
  ...[ownRecipe, fringe, dangles, finding],
  ...[frame, woundRowsOnWire, wireLadder, tileRing, smallShape, flowerOnWire],
]

/** Every technique, in the order in which it is offered. A new one is one more line here. */
export const TECHNIQUES: readonly Technique[] = [
  ...STITCHES.map(gridTechnique),
  ...LINES.map(lineTechnique),
  ...GUESTS,
]

const BY_ID = new Map(TECHNIQUES.map((t) => [t.id, t]))

export const findTechnique = (id: string): Technique | undefined => BY_ID.get(id)

export function requireTechnique(id: string): Technique {
  const found = BY_ID.get(id)
  if (!found) throw new Error(`no technique has the id ${JSON.stringify(id)}`)
  return found
}
