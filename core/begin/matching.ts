import { cellsFrom, emptyCells } from '../grid/cells'
import { lineAt, raggedFrom } from '../grid/lines'
import { requireSpec } from '../bead/spec'
import { wholeExtent } from '../fit/whole'
import { strandRuleSchema, type StrandRule } from '../hang/rule'
import { hung } from '../piece/held'
import { asGrid, beadOf, columnsOf, fittedPart, isGrid, techniqueOf, type Part, type Piece } from '../piece/piece'
import { fitSchema } from '../piece/schema'
import { sized } from '../piece/sizes'
import { applySteps } from '../piece/step'
import { ruleSteps } from '../piece/strands'
import { tallyPart } from '../tally/tally'
import { requireTechnique } from '../technique/registry'
import { usualClosure } from '../wear/closure'
import { fitKindOf } from '../wear/kind'
import { hungBelow } from './part'

/** A matching set: from a piece its beads and its motif, as earrings or a pendant with a fringe. */

export const MATCHES = ['earrings', 'pendant'] as const
export type Match = (typeof MATCHES)[number]

/** A panel is no wider than this, mm, and takes no more of the length than this share. */
const WIDEST_MM = { earrings: 20, pendant: 34 } as const
const PANEL_SHARE = 0.5

/** Tray numbers of a part by how many lie in it, the most first. */
function byUse(part: Part): number[] {
  return [...tallyPart(part)].sort((a, b) => b[1] - a[1]).map(([number]) => number)
}

/** The middle of one repeat of a flat band, as large as such a thing is: the motif that is taken over. */
function panelOf(source: Part, match: Match): Part | null {
  const t = techniqueOf(source)
  if (!isGrid(source) || t.round || t.material.through || source.repeat.rows === 0) return null
  const { repeat, settings } = asGrid(source)
  const bead = beadOf(source)
  const most = Math.floor(t.growth.columnsFor(WIDEST_MM[match], { bead, settings }) + 1e-9)
  const columns = t.growth.nearestColumns(Math.max(1, Math.min(columnsOf(source), most)), settings)
  const { repeatRows } = t.growth
  const room = t.growth.rowsFor(fitKindOf(match).usualMm * PANEL_SHARE, { bead, settings, columns })
  const rows = Math.max(repeatRows, Math.floor(Math.min(room, repeat.rows) / repeatRows) * repeatRows)
  if (columns > columnsOf(source) || rows > repeat.rows) return null
  // An even shift keeps beads of staggered stitches where they lie.
  const off = Math.floor((columnsOf(source) - columns) / 2)
  const left = off - (off % 2)
  const flat = Array.from({ length: rows }, (_, r) => [...lineAt(repeat, r)].slice(left, left + columns)).flat()
  return {
    ...source,
    id: 'panel',
    name: 'Panel',
    times: 1,
    on: null,
    start: emptyCells(columns, 0),
    repeat: cellsFrom(columns, rows, flat),
    end: emptyCells(columns, 0),
  }
}

/** The rule of a fringe in the beads of a part: its commonest beads in zones that come to a point. */
function ruleIn(numbers: readonly number[], strands: number, longest: number): StrandRule {
  const [first, second = first, third = second] = numbers as [number, number?, number?]
  const steps = Math.max(1, Math.ceil(strands / 2) - 1)
  const step = Math.max(0, Math.min(2, Math.floor((longest * 0.5) / steps)))
  const from = Math.max(1, longest - step * steps - 2)
  return strandRuleSchema.parse({
    strands,
    zones: [
      { beads: [first], grow: 'step', from, step },
      { beads: [second], from: 1 },
    ],
    end: [third],
  })
}

/**
 * Earrings or a pendant that go with a piece: its tray, the middle of one repeat where it is a flat band, and a fringe
 * in its commonest beads, as long as such things usually are.
 */
export function matching(piece: Piece, match: Match): Piece {
  const source = fittedPart(piece)
  const panel = panelOf(source, match)
  const kind = fitKindOf(match)
  const specs = new Map(piece.tray.map((b) => [b.number, requireSpec(b.spec)]))
  // A strand runs through one hole; cords are no beads.
  const strung = ([...specs.keys()] as number[]).filter((n) => {
    const { spacing, shape } = specs.get(n)!
    return spacing === undefined && shape !== 'cord'
  })
  const numbers = byUse(source).filter((n) => strung.includes(n))
  const used = numbers.length > 0 ? numbers : strung.length > 0 ? strung : [...specs.keys()]
  const spec = specs.get(used[0]!)!.id
  const fringe = requireTechnique('fringe')
  const strand: Part = {
    id: 'strands',
    name: fringe.words.thing,
    technique: fringe.id,
    settings: fringe.settings.parse({}),
    spec,
    times: 1,
    on: panel ? hungBelow(panel.id) : null,
    plan: fringe.plan!.parse({}),
    start: raggedFrom([]),
    repeat: raggedFrom([[used[0]!]]),
    end: raggedFrom([]),
  }
  const closure = usualClosure(kind.closures[0]!)
  const made = hung(
    sized({
      ...piece,
      name: `${piece.name}: ${match}`.slice(0, 80),
      notes: '',
      fit: fitSchema.parse({
        ...{ kind: match, part: strand.id, wearer: piece.fit.wearer, bodyMm: kind.usualMm, closure },
        widthMm: WIDEST_MM[match],
      }),
      parts: panel ? [panel, strand] : [strand],
    }),
  )
  const own = made.parts.at(-1)!
  const strands = own.held?.places.length ?? 9
  const rest = kind.usualMm - closure.lengthMm - wholeExtent(made, own).lengthMm.nominal
  const longest = Math.max(4, Math.floor(rest / requireSpec(spec).l) + 1)
  const result = applySteps(made, ruleSteps(made, own, ruleIn(used, Math.max(1, Math.min(60, strands)), longest)))
  if (!result.ok) throw new Error(result.problems[0]!.says)
  return result.value
}
