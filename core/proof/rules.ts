import type { Rule } from './found'
import { boxShort } from './rule/box'
import { capNarrow } from './rule/caps'
import { cautions } from './rule/cautions'
import { dropsBothWays } from './rule/drops'
import { glyphs } from './rule/glyphs'
import { pairParts, strandHalves } from './rule/halves'
import { holes } from './rule/holes'
import { oddLines } from './rule/lines'
import { neighbours } from './rule/neighbours'
import { oddOnes } from './rule/odd'
import { own } from './rule/own'
import { colourCycle, repeatCloses, roundCloses, turningRow } from './rule/repeat'
import { gapCrossed, notReached } from './rule/reach'
import { faceDown, secondHole } from './rule/second'
import { edgeSeries, lineSeries } from './rule/series'
import { sharpEdges } from './rule/sharp'
import { twins } from './rule/twins'
import { unused } from './rule/unused'
import { claspLight, claspNarrow, closes, heavy, laidAtAll } from './rule/wear'

/** Every rule of the proofreader. A new one is a file and a line here. */
export const RULES: readonly Rule[] = [
  laidAtAll,
  own,
  lineSeries,
  edgeSeries,
  strandHalves,
  pairParts,
  turningRow,
  repeatCloses,
  roundCloses,
  colourCycle,
  oddOnes,
  oddLines,
  holes,
  sharpEdges,
  secondHole,
  faceDown,
  dropsBothWays,
  gapCrossed,
  notReached,
  neighbours,
  glyphs,
  unused,
  twins,
  closes,
  heavy,
  claspLight,
  claspNarrow,
  capNarrow,
  boxShort,
  cautions,
]
