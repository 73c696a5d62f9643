import type { TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import { wholeExtent } from '../fit/whole'
import { cellsFrom, emptyCells } from '../grid/cells'
import { raggedFrom } from '../grid/lines'
import { RULE_LIMITS } from '../hang/rule'
import { hung } from '../piece/held'
import type { Part, Piece } from '../piece/piece'
import type { Joint } from '../piece/schema'
import { ruleSteps } from '../piece/strands'
import { applySteps } from '../piece/step'
import { sized } from '../piece/sizes'
import type { AbovePart, Begins } from '../technique/begins'
import { requireTechnique } from '../technique/registry'
import type { Settings, Technique } from '../technique/technique'

/** A first piece of strands: what they hang from, and strands as long as the measure takes. */

interface HangingWish {
  readonly technique: Technique
  readonly begins: Begins
  /** Which of its beginnings; the first where it has no such. */
  readonly from: string
  readonly settings: Settings
  readonly spec: string
  readonly widthMm: number
  readonly tray: readonly TrayBead[]
  /** The piece round some parts. */
  around(tray: TrayBead[], parts: readonly Part[], fitted: string): Piece
  /** What closing takes of the measure, and the measure, mm. */
  readonly takenMm: number
  readonly bodyMm: number
}

const hangingOn = (part: string): Joint => ({ part, at: 'end', by: 'start', holes: [], link: null })

function abovePart(
  { technique, name, settings, rows }: AbovePart,
  id: string,
  spec: string,
  tray: readonly TrayBead[],
): Part {
  const t = requireTechnique(technique)
  const columns = Math.max(1, ...rows.map((row) => row.length))
  const head = { id, name, technique, settings: t.settings.parse(settings), spec, on: null }
  if (t.firstLines)
    return {
      ...head,
      times: 0,
      ...(t.plan ? { plan: t.plan.parse({}) } : {}),
      start: raggedFrom([]),
      repeat: raggedFrom([]),
      end: raggedFrom([]),
    }
  return {
    ...head,
    times: 1,
    start: emptyCells(columns, 0),
    repeat: cellsFrom(
      columns,
      rows.length,
      rows.flatMap((row) => row.map((at) => (at === 0 ? 0 : tray[at - 1]!.number))),
    ),
    end: emptyCells(columns, 0),
  }
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
  const beginning = begins.from.find((one) => one.id === wish.from) ?? begins.from[0]!
  const tray = trayFor(wish, more)
  const { parts: above, strands } = beginning.above({ count: begins.countFor(widthMm, bead), bead })
  const parts = above.map((one, k) => abovePart(one, `top-${k + 1}`, spec, tray))
  const joined = parts.map((part, k) => (k === 0 ? part : { ...part, on: hangingOn(parts[k - 1]!.id) }))
  const strand: Part = {
    id: 'strands',
    name: technique.words.thing,
    technique: technique.id,
    settings: wish.settings,
    spec,
    times: 1,
    on: joined.length > 0 ? hangingOn(joined.at(-1)!.id) : null,
    ...(technique.plan ? { plan: technique.plan.parse({}) } : {}),
    start: raggedFrom([]),
    repeat: raggedFrom([[tray[0]!.number]]),
    end: raggedFrom([]),
  }
  const piece = hung(sized(wish.around(tray, [...joined, strand], strand.id)))
  const part = piece.parts.at(-1)!
  const own = wholeExtent(piece, part).lengthMm.nominal - bead.d
  const specs = new Map(tray.map((b) => [b.number, requireSpec(b.spec)]))
  const rule = begins.rule({
    strands: Math.min(RULE_LIMITS.strands, strands),
    longMm: Math.max(bead.l, wish.bodyMm - wish.takenMm - own),
    numbers: tray.map((b) => b.number),
    specOf: (number) => specs.get(number) ?? bead,
  })
  const made = applySteps(piece, ruleSteps(piece, part, rule))
  if (!made.ok) throw new Error(made.problems[0]!.says)
  return made.value
}
