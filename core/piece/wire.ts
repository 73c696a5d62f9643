import { requireSpec } from '../bead/spec'
import type { Cross, CrossView, Guide } from '../technique/wire-side'
import { linesOf } from '../grid/lines'
import { setStep } from './edit'
import { rowsOf, SECTIONS, techniqueOf, workOf, type Part, type Piece } from './piece'
import { fullLines, linesSteps } from './recast'
import type { SetStep, Step } from './step'

/** Work on wire as a designer sees it: guides to bend by, and wires across a frame. */

/** Guides, and the parts that are bent by them. */
export interface PartGuides {
  readonly parts: readonly Part[]
  readonly guides: readonly Guide[]
}

/**
 * Bending guides of all parts on wire. Parts that are bent alike share theirs, so that nothing is shown twice; what
 * all of several parts share stands last.
 */
export function guidesOf(piece: Pick<Piece, 'parts'>): PartGuides[] {
  const byGuide = new Map<string, { readonly guide: Guide; readonly parts: Part[] }>()
  for (const part of piece.parts)
    for (const guide of rowsOf(part) > 0 ? (techniqueOf(part).wire?.guides(workOf(part)) ?? []) : []) {
      const key = JSON.stringify(guide)
      const same = byGuide.get(key)
      if (same) same.parts.push(part)
      else byGuide.set(key, { guide, parts: [part] })
    }
  const most = new Set([...byGuide.values()].flatMap(({ parts }) => parts)).size
  const groups = new Map<string, { readonly parts: Part[]; readonly guides: Guide[] }>()
  for (const { guide, parts } of byGuide.values()) {
    const key = parts.map(({ id }) => id).join(' ')
    const group = groups.get(key)
    if (group) group.guides.push(guide)
    else groups.set(key, { parts, guides: [guide] })
  }
  const shared = ({ parts }: PartGuides): number => (most > 1 && parts.length === most ? 1 : 0)
  return [...groups.values()].sort((a, b) => shared(a) - shared(b))
}

/** Wires across a part; null where it has none by its technique. */
export const crossesOf = (part: Part): readonly CrossView[] | null =>
  techniqueOf(part).wire?.crosses?.of(workOf(part)) ?? null

/** The bead of a small and of a large part, for what is put in: by the tray, and what lies across already. */
function beadsFor(piece: Pick<Piece, 'tray'>, part: Part): { readonly small: number; readonly large: number } {
  const used = new Set(SECTIONS.flatMap((section) => linesOf(part[section]).flatMap((line) => [...line])))
  const tray = piece.tray.filter(({ number }) => used.has(number))
  const from = tray.length > 0 ? tray : piece.tray
  const by = (better: (a: number, b: number) => boolean) =>
    from.reduce((best, one) => (better(requireSpec(one.spec).d, requireSpec(best.spec).d) ? one : best))
  return { small: by((a, b) => a < b).number, large: by((a, b) => a > b).number }
}

const plain = ({ gap, left, filling }: Cross): Cross => ({ gap, left, filling })

/** Steps that give a frame these wires across, each with its line; `from`: the line that it had, −1 for a new one. */
function withCrosses(
  piece: Piece,
  part: Part,
  wanted: readonly { readonly cross: Cross; readonly from: number; readonly fills: boolean }[],
): Step[] {
  const side = techniqueOf(part).wire?.crosses
  if (!side) return []
  const all = SECTIONS.flatMap((section) => linesOf(part[section]).map((line) => [...line]))
  const plan = side.plan(wanted.map(({ cross }) => plain(cross)))
  const beads = { ...beadsFor(piece, part), specOf: specOf(piece, part) }
  const work = workOf({ ...part, plan })
  const lines = wanted.map(({ cross, from, fills }) =>
    fills ? side.line(plain(cross), work, beads) : [...(all[from + 1] ?? [])],
  )
  return [
    setStep(piece, ['parts', part.id, 'plan'], plan as SetStep['after']),
    ...linesSteps(piece, part, { start: [], repeat: [all[0] ?? [], ...lines], end: [], times: 1 }),
  ]
}

const specOf = (piece: Pick<Piece, 'tray'>, part: Part) => {
  const specs = new Map(piece.tray.map((b) => [b.number, requireSpec(b.spec)]))
  return (number: number) => specs.get(number) ?? requireSpec(part.spec)
}

/** Changes a wire across: another filling is strung anew, another gap as full as it is there. */
export function changeCrossSteps(piece: Piece, part: Part, k: number, change: Partial<Cross>): Step[] {
  const crosses = crossesOf(part) ?? []
  return withCrosses(
    piece,
    part,
    crosses.map((cross, i) => ({
      cross: i === k ? { ...cross, ...change } : cross,
      from: i,
      fills:
        i === k && ((change.filling !== undefined && change.filling !== cross.filling) || change.gap !== undefined),
    })),
  )
}

/** One more wire across, in the widest room between those that are there, filled as the last. */
export function addCrossSteps(piece: Piece, part: Part): Step[] {
  const side = techniqueOf(part).wire?.crosses
  if (!side) return []
  const crosses = crossesOf(part) ?? []
  const gaps = [0, ...crosses.map(({ gap }) => gap), Math.ceil(side.lastGap(workOf(part)) / 2)]
  let at = 0
  gaps.forEach((gap, i) => {
    if (i + 1 < gaps.length && gaps[i + 1]! - gap > gaps[at + 1]! - gaps[at]!) at = i
  })
  const gap = Math.max(1, Math.round((gaps[at]! + gaps[at + 1]!) / 2))
  const put: Cross = { gap, left: null, filling: crosses.at(-1)?.filling ?? side.fillings[0]!.id }
  const list = crosses.map((cross, i) => ({ cross: cross as Cross, from: i, fills: false }))
  return withCrosses(piece, part, list.toSpliced(at, 0, { cross: put, from: -1, fills: true }))
}

export const removeCrossSteps = (piece: Piece, part: Part, k: number): Step[] =>
  withCrosses(
    piece,
    part,
    (crossesOf(part) ?? []).flatMap((cross, i) => (i === k ? [] : [{ cross, from: i, fills: false }])),
  )

/** Steps that make every line as full as it can be; none where they are, or where lines have no room of their own. */
export const fillSteps = (piece: Piece, part: Part): Step[] =>
  techniqueOf(part).wire?.full ? linesSteps(piece, part, fullLines(part)) : []
