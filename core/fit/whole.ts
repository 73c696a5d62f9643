import { drawnSize } from '../piece/drawn-size'
import { layOut, partsWith, type Placed, type Whole } from '../piece/joint'
import { techniqueOf, type Part, type Piece } from '../piece/piece'
import type { Extent, Range } from '../technique/technique'
import { plainNumber } from '../units/length'
import { extentOf } from './extent'
import type { Ground } from './gauge'

type Grounded = Ground & Pick<Piece, 'parts'> & Partial<Pick<Piece, 'fit'>>

const BOUNDS = ['least', 'nominal', 'most'] as const

interface Long {
  readonly lengthMm: number
  readonly widthMm: number
}

/** Size of a laid-out piece as it lies to one of its parts, mm: along the length of that part and across it. */
function sizeBeside({ placed, width, length }: Whole, part: Part): Long {
  const { turn } = placed.find((p: Placed) => p.part.id === part.id)!
  return turn % 2 === 0 ? { lengthMm: length, widthMm: width } : { lengthMm: width, widthMm: length }
}

/** The same with each part as large as `extents` say, and this one of a length of its own where it is given. */
function sized(
  parts: readonly Part[],
  extents: ReadonlyMap<string, Extent>,
  part: Part,
  bound: keyof Range,
  ownMm?: number,
): Long {
  const whole = layOut(parts, parts[0]!, (one) => {
    const { lengthMm, widthMm } = extents.get(one.id)!
    const length = one.id === part.id && ownMm !== undefined ? ownMm : lengthMm[bound]
    const drawn = drawnSize(one)
    if (!drawn.hungAt) return { length, width: widthMm[bound] }
    // What hangs from a curve or is bent is as long as it is drawn, given or taken what its own length is.
    const share = lengthMm.nominal > 0 ? length / lengthMm.nominal : 1
    const wider = widthMm.nominal > 0 ? widthMm[bound] / widthMm.nominal : 1
    return {
      length: drawn.length * share,
      width: drawn.width * wider,
      hungAt: { x: drawn.hungAt.x * wider, y: drawn.hungAt.y * share },
    }
  })
  return sizeBeside(whole, part)
}

/** The parts that make up the measure of a part: all that hang together with it, but what they are worn on. */
function measured(all: readonly Part[], part: Part): readonly Part[] {
  const worn = (p: Part) => techniqueOf(p).apart?.({ settings: p.settings }) ?? false
  const parts = partsWith(all, part).filter((p) => p.id === part.id || !worn(p))
  return partsWith(parts, part).filter((p) => parts.includes(p))
}

const extentsOf = (ground: Grounded, parts: readonly Part[]): Map<string, Extent> =>
  new Map(parts.map((p) => [p.id, extentOf(ground, p)]))

/**
 * How long and wide a part is together with all that hangs on it and that it hangs on, mm: along its own length and
 * across it. The extent of the part itself where it stands alone. Lengths add along joints: part, link, part; what is
 * beside it counts as far as it reaches further.
 */
export function wholeExtent(ground: Grounded, part: Part): Extent {
  const own = extentOf(ground, part)
  const parts = measured(ground.parts, part)
  if (parts.length === 1) return own
  const extents = extentsOf(ground, parts)
  const [least, nominal, most] = BOUNDS.map((bound) => sized(parts, extents, part, bound))
  const others = parts.filter((p) => p.id !== part.id)
  const names = others.length > 3 ? `${others.length} joined parts` : others.map((p) => p.name).join(', ')
  const more = (all: number, alone: number) =>
    all - alone > 0.05 ? ` + ${plainNumber(all - alone)} mm with ${names}` : ''
  return {
    ...own,
    lengthMm: { least: least!.lengthMm, nominal: nominal!.lengthMm, most: most!.lengthMm },
    widthMm: { least: least!.widthMm, nominal: nominal!.widthMm, most: most!.widthMm },
    lengthFormula: own.lengthFormula + more(nominal!.lengthMm, own.lengthMm.nominal),
    widthFormula: own.widthFormula + more(nominal!.widthMm, own.widthMm.nominal),
  }
}

/** Rounds after which the length of a part is found, or there is none that makes the whole so long. */
const ROUNDS = 8

/**
 * How long a part must be for the whole to be `wholeMm`, mm. Where other parts alone are longer than that, nothing it
 * could be makes the whole as short: then it is as long as it would be by itself.
 */
export function ownLengthFor(ground: Grounded, part: Part, wholeMm: number): number {
  const parts = measured(ground.parts, part)
  if (parts.length === 1) return wholeMm
  const extents = extentsOf(ground, parts)
  let own = extents.get(part.id)!.lengthMm.nominal
  for (let k = 0; k < ROUNDS; k++) {
    const missing = wholeMm - sized(parts, extents, part, 'nominal', own).lengthMm
    if (Math.abs(missing) < 1e-6) return own
    own = Math.max(0, own + missing)
  }
  return wholeMm
}
