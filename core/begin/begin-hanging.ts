import type { TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import { wholeExtent } from '../fit/whole'
import { raggedFrom } from '../grid/lines'
import { RULE_LIMITS } from '../hang/rule'
import { hung } from '../piece/held'
import type { Part, Piece } from '../piece/piece'
import { ruleSteps } from '../piece/strands'
import { applySteps } from '../piece/step'
import { sized } from '../piece/sizes'
import type { Begins } from '../technique/begins'
import type { Settings, Technique } from '../technique/technique'
import type { Fit } from '../piece/schema'
import { usualClosure, type Closure } from '../wear/closure'
import type { FitKind } from '../wear/kind'
import { firstPart, hungBelow } from './part'

/** A first piece of strands: what they hang from, and strands as long as the measure takes. */

interface HangingWish {
  readonly technique: Technique
  readonly begins: Begins
  /** Which of its beginnings; the first where it has no such for what it is to be. */
  readonly from: string
  readonly kind: FitKind
  readonly settings: Settings
  readonly spec: string
  readonly widthMm: number
  readonly tray: readonly TrayBead[]
  /** The piece round some parts. */
  around(tray: TrayBead[], parts: readonly Part[], fit: Pick<Fit, 'part' | 'closure'>): Piece
  readonly closure: Closure
  /** The measure, mm. */
  readonly bodyMm: number
}

/** The tray with the sizes that play a part of their own, one bead more where the last of them is. */
function trayFor({ begins, spec, tray }: HangingWish, more: (tray: readonly TrayBead[]) => TrayBead): TrayBead[] {
  const sizes = begins.sizes(spec)
  const out = [...tray]
  const places = Object.keys(sizes).map(Number)
  while (out.length <= Math.max(-1, ...places)) out.push(more(out))
  return out.map((bead, k) => (sizes[k] ? { ...bead, spec: sizes[k] } : bead))
}

export function beginHanging(wish: HangingWish, more: (tray: readonly TrayBead[]) => TrayBead): Piece {
  const { technique, begins, spec, widthMm } = wish
  const bead = requireSpec(spec)
  const offered = begins.from.filter(({ kinds }) => kinds?.includes(wish.kind) ?? true)
  const beginning = offered.find((one) => one.id === wish.from) ?? offered[0]!
  const tray = trayFor(wish, more)
  const {
    parts: above,
    strands,
    settings: bySide = {},
    closure: between,
  } = beginning.above({
    count: begins.countFor(widthMm, bead),
    widthMm,
    bead,
  })
  const parts = above.map((one, k) => firstPart(one, `top-${k + 1}`, spec, (place) => tray[place - 1]!.number))
  const joined = parts.map((part, k) =>
    k === 0 ? part : { ...part, on: hungBelow(parts[k - 1]!.id, above[k]!.ringsAt) },
  )
  const strand: Part = {
    id: 'strands',
    name: technique.words.thing,
    technique: technique.id,
    settings: technique.settings.parse({ ...wish.settings, ...bySide }),
    spec,
    times: 1,
    on: joined.length > 0 ? hungBelow(joined.at(-1)!.id) : null,
    ...(technique.plan ? { plan: technique.plan.parse({}) } : {}),
    start: raggedFrom([]),
    repeat: raggedFrom([[tray[0]!.number]]),
    end: raggedFrom([]),
  }
  const closure: Closure = between ? { ...usualClosure('own'), ...between } : wish.closure
  const piece = hung(sized(wish.around(tray, [...joined, strand], { part: strand.id, closure })))
  const part = piece.parts.at(-1)!
  const own = wholeExtent(piece, part).lengthMm.nominal - bead.d
  const specs = new Map(tray.map((b) => [b.number, requireSpec(b.spec)]))
  const rule = begins.rule({
    strands: Math.min(RULE_LIMITS.strands, strands),
    longMm: Math.max(bead.l, wish.bodyMm - (closure.lengthMm - closure.overlapMm) - own),
    numbers: tray.map((b) => b.number),
    specOf: (number) => specs.get(number) ?? bead,
  })
  const made = applySteps(piece, ruleSteps(piece, part, rule))
  if (!made.ok) throw new Error(made.problems[0]!.says)
  return made.value
}
