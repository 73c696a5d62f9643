import { isCounted } from '../piece/nature'
import { checkHole, type HoleCheck, type Passing } from '../bead/hole'
import { requireSpec } from '../bead/spec'
import { closureOf } from '../wear/closure'
import { strandsOn } from '../piece/held'
import { joinOf } from '../piece/join'
import { laidWork } from '../piece/laid'
import { fittedPart, isInside, partRow, rowsOf, techniqueOf, workOf, type Part, type Piece } from '../piece/piece'
import type { Supply } from '../piece/schema'
import { plainNumber, showNumber } from '../units/length'
import { cordScale, strandCords } from '../tally/cords'
import { tallyPart } from '../tally/tally'
import { placeName } from '../tally/place-name'
import type { CarrierId, Hole } from '../technique/act'
import type { Place } from '../technique/lattice'
import type { ThreadPath, ThreadRun, Work } from '../technique/technique'
import { wireDiameterMm } from '../units/wire-gauge'
import { nextGauge, passTogether, roomInHoleMm } from '../wire/shared-hole'
import { linksNeeded } from './links'
import { EAR_WIRE_MM } from './wire'
import { NEEDLES, requireNeedle, requireThread, THREADS } from '../thread/catalogue'

/** Thread lies in waves and is pulled tight by hand: path × 1.05 (common practice). */
export const USUAL_SLACK = 1.05

const slackOf = ({ slack }: Pick<Supply, 'slack'>): number => slack ?? USUAL_SLACK

/** Cut lengths are rounded up to this, mm. */
const CUT_STEP_MM = 100

interface ThreadCut {
  readonly id: string
  readonly name: string
  /** Pieces to cut, each `cutMm` long; for joined thread the last may be shorter. */
  readonly pieces: number
  readonly cutMm: number
  readonly totalMm: number
  readonly joins: number
  /** What of the total is not in the path, the tails or the closure: to spare, mm. */
  readonly spareMm: number
  readonly pathMm: number
  readonly formula: string
}

/** A cut with what it is cut of, and what to ask for where its name does not say it. */
interface Bought {
  readonly cut: ThreadCut
  readonly carrier: CarrierId
  readonly shopName?: string | undefined
}

const roundUp = (mm: number, step = CUT_STEP_MM): number => Math.ceil(mm / step - 1e-9) * step

/** Openings of its closure that the work itself makes: a button's loops, or several to choose from. */
const openingsOf = ({ closure }: Piece['fit']): number =>
  closure.kind === 'button' || closure.openings > 1 ? closure.openings : 0

/** What of the closure of a piece the work of a part must know; nothing for a part that it does not close. */
export const closingOf = (piece: Pick<Piece, 'fit' | 'parts'>, part: Part): Pick<Work, 'openings' | 'stretches'> =>
  fittedPart(piece).id === part.id
    ? { openings: openingsOf(piece.fit), stretches: piece.fit.closure.kind === 'elastic' }
    : {}

/**
 * The way of threads, cords and wire through what is laid of a part; of the part that is fitted, with what closing or
 * joining its ends asks.
 */
export function pathOf(part: Part, piece?: Pick<Piece, 'fit' | 'parts'>): ThreadPath {
  const path = techniqueOf(part).path({ ...laidWork(part), ...(piece ? closingOf(piece, part) : {}) })
  const more = piece ? (joinOf(piece, part)?.threadMm ?? 0) : 0
  if (more === 0) return path
  return {
    ...path,
    runs: path.runs.map((run) =>
      run.joined
        ? {
            ...run,
            lengthMm: run.lengthMm + more,
            formula: `${run.formula} + ${plainNumber(more)} mm to join the ends`,
          }
        : run,
    ),
  }
}

/**
 * Path that one working length covers, mm: of the first, which leaves a tail for the closure, and of each that is
 * joined on; and what the last must still cover to sew the closure on and leave its tail. At least a little, so that
 * a hopelessly short thread still goes a row.
 */
export function coverOf(
  supply: Pick<Supply, 'workingLengthMm' | 'claspTailMm' | 'tailMm' | 'slack'>,
  sewingMm = 0,
): { readonly first: number; readonly next: number; readonly sewing: number } {
  const { workingLengthMm, claspTailMm, tailMm } = supply
  const of = (tails: number) => Math.max(1, workingLengthMm - tails) / slackOf(supply)
  return {
    first: of(claspTailMm + tailMm),
    next: of(2 * tailMm),
    sewing: Math.max(0, sewingMm + claspTailMm - tailMm) / slackOf(supply),
  }
}

interface ThreadNeed {
  readonly pathMm: number
  readonly sewingMm: number
  readonly supply: Supply
}

/**
 * Working lengths for a path: path × slack + sewing on the closure + two tails, and two more tails for each join. As
 * many joins as the longest handled thread makes needful; the total is rounded up to 10 cm. Doubled thread takes twice
 * the length, in the same handled lengths folded.
 */
export function cutThread({ pathMm, sewingMm, supply }: ThreadNeed): {
  joins: number
  totalMm: number
  spareMm: number
} {
  if (pathMm <= 0) return { joins: 0, totalMm: 0, spareMm: 0 }
  const fold = supply.doubled ? 2 : 1
  const handled = supply.workingLengthMm
  const need = pathMm * slackOf(supply) + sewingMm + 2 * supply.claspTailMm
  const perJoin = 2 * supply.tailMm
  const joins = Math.max(0, Math.ceil((need - handled) / Math.max(1, handled - perJoin) - 1e-9))
  const exact = (need + joins * perJoin) * fold
  const totalMm = roundUp(exact)
  return {
    joins,
    totalMm,
    spareMm: totalMm - (pathMm * fold + sewingMm * fold + (2 * supply.claspTailMm + joins * perJoin) * fold),
  }
}

/**
 * Cords of a plain braid, a line for each colour and thickness: doubled strands are one more, folded ones half as many
 * at twice the length.
 */
function cordCuts(piece: Piece, part: Part): Bought[] {
  const run = pathOf(part, piece).runs[0]!
  const scale = cordScale(part, piece.tray)
  const { knotsMm, folded } = run.each ?? { knotsMm: 0, folded: false }
  const oneMm = run.lengthMm === 0 ? 0 : (run.lengthMm - knotsMm) * scale + knotsMm
  const cords = strandCords(part, piece.tray)
  const thicker = scale === 1 ? '' : `, × ${showNumber(scale, 3)} for thickness`
  const inPairs = folded ? ', folded in pairs' : ''
  return [...new Set(cords.map((c) => c.number))].map((number) => {
    const bead = piece.tray.find((b) => b.number === number)
    const strands = cords.filter((c) => c.number === number).reduce((sum, c) => sum + (c.doubled ? 2 : 1), 0)
    // A fold gives two strands; an odd one left over is cut by itself, at the same length, and half of it is to spare.
    const pieces = folded ? Math.ceil(strands / 2) : strands
    const cutMm = roundUp(oneMm * (folded ? 2 : 1))
    const cut: ThreadCut = {
      id: `cord-${number}`,
      name: bead ? `${bead.letter} ${bead.name}, ${requireSpec(bead.spec).name}` : 'Cord',
      pieces,
      cutMm,
      totalMm: pieces * cutMm,
      joins: 0,
      spareMm: pieces * cutMm - strands * oneMm,
      pathMm: strands * oneMm,
      formula: `${strands} ${strands === 1 ? 'strand' : 'strands'} × (${run.formula}${thicker})${inPairs}`,
    }
    return { cut, carrier: run.id, shopName: bead && `${bead.name}, ${requireSpec(bead.spec).name}` }
  })
}

/** One run of thread: cut as it is, or in working lengths; each of several threads that are sewn with by itself. */
function runCut(piece: Piece, part: Part, run: ThreadRun): ThreadCut {
  const { key: id = run.id, name, count, joined, lengthMm, formula } = run
  const { supply, fit } = piece
  if (!joined) {
    const cutMm = run.exact ? lengthMm : roundUp(lengthMm, run.stepMm)
    return {
      id,
      name,
      pieces: count,
      cutMm,
      totalMm: cutMm * count,
      joins: 0,
      spareMm: (cutMm - lengthMm) * count,
      pathMm: lengthMm * count,
      formula,
    }
  }
  const { joins, totalMm, spareMm } = cutThread({
    pathMm: lengthMm,
    sewingMm: part.id === fittedPart(piece).id ? closureOf(fit.closure.kind).sewingMm / count : 0,
    supply,
  })
  return {
    id,
    name,
    pieces: totalMm === 0 ? 0 : (joins + 1) * count,
    cutMm: Math.min(totalMm, supply.workingLengthMm * (supply.doubled ? 2 : 1)),
    totalMm: totalMm * count,
    joins: joins * count,
    spareMm: spareMm * count,
    pathMm: lengthMm * count,
    formula,
  }
}

const boughtOf = (piece: Piece, part: Part): Bought[] =>
  isCounted(part)
    ? pathOf(part, piece).runs.map((run) => ({
        cut: runCut(piece, part, run),
        carrier: run.id,
        shopName: run.shopName,
      }))
    : cordCuts(piece, part)

/** What is cut of thread, cord and wire for a part. */
export const threadCuts = (piece: Piece, part: Part): ThreadCut[] => boughtOf(piece, part).map(({ cut }) => cut)

/** A thing to cut for a piece: thread of a part, or what its closure needs; for one piece, or one of a pair. */
export interface Cut {
  readonly id: string
  /** Part it belongs to; empty for the piece as a whole. */
  readonly part: string
  readonly name: string
  readonly material: 'thread' | 'elastic' | 'chain' | 'wire' | 'cord'
  readonly pieces: number
  readonly cutMm: number
  readonly totalMm: number
  readonly joins: number
  readonly spareMm: number
  readonly formula: string
  /** What to ask for in a shop, where the name of the cut does not say it: a cord by its thickness and colour. */
  readonly shopName?: string
}

/** Elastic is cut about twice the wrist, so that it can be knotted (common practice). */
const ELASTIC_TIMES = 2

function closureCuts({ fit, supply }: Piece): Cut[] {
  const { closure } = fit
  const cut = (
    id: string,
    name: string,
    material: Cut['material'],
    pieces: number,
    cutMm: number,
    spareMm: number,
    formula: string,
  ): Cut => ({
    id,
    part: '',
    name,
    material,
    pieces,
    cutMm,
    totalMm: pieces * cutMm,
    joins: 0,
    spareMm: pieces * spareMm,
    formula,
  })
  if (closure.kind === 'elastic') {
    const exact = ELASTIC_TIMES * fit.bodyMm * fit.wraps
    const cutMm = roundUp(exact)
    return [
      cut(
        'elastic',
        'Elastic',
        'elastic',
        supply.elastics,
        cutMm,
        cutMm - exact,
        `${ELASTIC_TIMES} × ${Math.round(fit.bodyMm)} mm${fit.wraps > 1 ? ` × ${fit.wraps} turns` : ''}`,
      ),
    ]
  }
  if (closure.kind === 'ear-wire' && supply.earWireGauge > 0) {
    return [
      cut(
        'ear-wire',
        `Ear wire, ${supply.earWireGauge} gauge`,
        'wire',
        1,
        EAR_WIRE_MM,
        0,
        `${EAR_WIRE_MM} mm of wire ${Math.round(wireDiameterMm(supply.earWireGauge) * 100) / 100} mm thick; ` +
          'file the end smooth',
      ),
    ]
  }
  return closure.extenderMm > 0
    ? [
        cut(
          'chain',
          'Extender chain',
          'chain',
          1,
          closure.extenderMm,
          0,
          `${Math.round(closure.extenderMm)} mm, with a bead at its end`,
        ),
      ]
    : []
}

/** What is cut of what works its way through beads. */
const CARRIER_MATERIALS: Readonly<Record<CarrierId, Cut['material']>> = {
  thread: 'thread',
  weft: 'thread',
  warp: 'thread',
  cord: 'cord',
  core: 'cord',
  wire: 'wire',
  chain: 'chain',
}

/** Chain between parts, a piece for each bead that one hangs at. */
const linkCuts = (piece: Piece): Cut[] =>
  linksNeeded(piece)
    .filter((link) => link.kind === 'chain' && link.mm > 0)
    .map(({ name, count, mm }, k) => ({
      id: `link-${k + 1}`,
      part: '',
      name,
      material: 'chain',
      pieces: count,
      cutMm: mm,
      totalMm: count * mm,
      joins: 0,
      spareMm: 0,
      formula: `${count} × ${plainNumber(mm)} mm between parts`,
      shopName: 'Chain',
    }))

/** Everything to cut for one piece (or one of a pair), part by part. */
export function cutList(piece: Piece): Cut[] {
  return [
    ...piece.parts.flatMap((part) =>
      boughtOf(piece, part).map(({ cut, carrier, shopName }): Cut => ({
        ...cut,
        ...(shopName ? { shopName } : {}),
        part: part.name,
        material: CARRIER_MATERIALS[carrier],
      })),
    ),
    ...closureCuts(piece),
    ...linkCuts(piece),
  ]
}

interface Length {
  readonly material: Cut['material']
  readonly totalMm: number
  readonly spareMm: number
}

/** Lengths in all of each material, pairs and batches included. */
export function lengthsOf(piece: Piece, times: number): Length[] {
  const out = new Map<Cut['material'], { totalMm: number; spareMm: number }>()
  for (const cut of cutList(piece)) {
    const there = out.get(cut.material) ?? { totalMm: 0, spareMm: 0 }
    out.set(cut.material, {
      totalMm: there.totalMm + cut.totalMm * times,
      spareMm: there.spareMm + cut.spareMm * times,
    })
  }
  return [...out].map(([material, l]) => ({ material, ...l }))
}

/** What would help a needle through, best first. Ids are of the catalogue. */
export type Help =
  | { readonly kind: 'needle'; readonly id: string; readonly verdict: Passing }
  | { readonly kind: 'thread'; readonly id: string; readonly verdict: Passing }
  | { readonly kind: 'wire'; readonly gauge: number; readonly verdict: Passing }
  | { readonly kind: 'single' | 'fewer passes' | 'larger hole'; readonly verdict: Passing }

/** One hole of one bead of a part, and its name for the hands. */
interface HoleAt extends Place {
  readonly hole: Hole
  readonly says: string
}

/** A bead and its hole as they are found in the work. */
const holeAt = (part: Part, c: number, r: number, hole: Hole): HoleAt => ({
  ...{ c, r, hole },
  says: `${placeName(part, { c, r })}${hole === 'b' ? ', second hole' : ''}`,
})

interface MostPassed {
  readonly passes: number
  readonly at?: HoleAt
}

/** The hole of each size that is passed most, walked bead by bead where beads differ. */
function mostPassed(piece: Pick<Piece, 'tray'>, part: Part, path: ThreadPath): (spec: string) => MostPassed {
  const usual = { passes: path.passes }
  if (!path.passesAt) return () => usual
  const specs = new Map(piece.tray.map((b) => [b.number, b.spec]))
  const most = new Map<string, MostPassed>()
  for (let r = 0; r < rowsOf(part); r++)
    for (const [c, number] of partRow(part, r).entries()) {
      const spec = specs.get(number)
      if (spec === undefined) continue
      for (const hole of requireSpec(spec).spacing === undefined ? (['a'] as const) : (['a', 'b'] as const)) {
        const passes = path.passesAt(c, r, hole)
        if (passes > (most.get(spec)?.passes ?? 0)) most.set(spec, { passes, at: holeAt(part, c, r, hole) })
      }
    }
  return (spec) => most.get(spec) ?? usual
}

export interface SpecHoleCheck extends HoleCheck {
  readonly spec: string
  /** Passes of the work, of the beads at the ends that a closure is sewn to, or of those that strands hang from. */
  readonly where: 'work' | 'ends' | 'strands'
  /** The bead that is passed most of all of its size, where they differ; left out where each is passed as often. */
  readonly at?: HoleAt
  /** The thickest wire in it, mm, where wires go through and no needle. */
  readonly wireMm?: number
  readonly helps: readonly Help[]
}

const RANK: Record<Passing, number> = { no: 0, tight: 1, easy: 2 }

function helpsFor(hole: number, passes: number, supply: Supply, now: Passing): Help[] {
  const thread = requireThread(supply.thread)
  const needle = requireNeedle(supply.needle)
  const fold = supply.doubled ? 2 : 1
  const verdict = (t = thread, eye = needle.eyeMm, n = passes * fold) => checkHole(hole, n, t, eye).verdict
  const found: Help[] = []
  const offer = (help: Help) => {
    if (RANK[help.verdict] > RANK[now]) found.push(help)
  }
  // The largest needle and the thickest thread that change the answer: no finer than need be.
  const finer = NEEDLES.filter((n) => n.eyeMm < needle.eyeMm)
    .sort((a, b) => b.eyeMm - a.eyeMm)
    .map((n) => ({ kind: 'needle' as const, id: n.id, verdict: verdict(thread, n.eyeMm) }))
  const thinner = THREADS.filter((t) => t.diameterMm < thread.diameterMm && t.flattens === thread.flattens)
    .sort((a, b) => b.diameterMm - a.diameterMm)
    .map((t) => ({ kind: 'thread' as const, id: t.id, verdict: verdict(t) }))
  for (const list of [finer, thinner]) {
    const best = list.find((h) => h.verdict === 'easy') ?? list.find((h) => RANK[h.verdict] > RANK[now])
    if (best) offer(best)
  }
  if (supply.doubled) offer({ kind: 'single', verdict: verdict(thread, needle.eyeMm, passes) })
  if (supply.reinforce > 0)
    offer({ kind: 'fewer passes', verdict: verdict(thread, needle.eyeMm, (passes - supply.reinforce) * fold) })
  return found.length > 0
    ? found.sort((a, b) => RANK[b.verdict] - RANK[a.verdict])
    : [{ kind: 'larger hole', verdict: 'easy' }]
}

/** Whether the closure is sewn to the beads at the ends, which are passed more often then. */
const sewn = ({ fit }: Piece): boolean => closureOf(fit.closure.kind).sewingMm > 0

/** Sizes that rows at the two ends of a part use, each with the first bead of it. */
function endBeads(piece: Piece, part: Part): Map<string, HoleAt> {
  const specs = new Map(piece.tray.map((b) => [b.number, b.spec]))
  const filled = Array.from({ length: rowsOf(part) }, (_, r) => r).filter((r) => partRow(part, r).some((n) => n !== 0))
  const out = new Map<string, HoleAt>()
  for (const r of filled.length === 0 ? [] : [filled[0]!, filled.at(-1)!])
    for (const [c, number] of partRow(part, r).entries()) {
      const spec = specs.get(number)
      if (spec !== undefined && isInside(part, { c, r }) && !out.has(spec)) out.set(spec, holeAt(part, c, r, 'a'))
    }
  return out
}

const named = (at: HoleAt | undefined): { at?: HoleAt } => (at ? { at } : {})

/** Passes that strands bring through a bead that they hang from: down and up, once for the end of a swag. */
const STRAND_PASSES = { back: 2, swag: 1 } as const

/** Most passes that strands hanging on a part bring through one of its beads, by size. */
function strandPasses(piece: Piece, part: Part): Map<string, number> {
  const out = new Map<string, number>()
  for (const child of strandsOn(piece.parts, part.id)) {
    // Pins hang by their loops.
    if (child.on!.link || pathOf(child).runs.length === 0) continue
    const places = new Map<number, number>()
    const add = (at: number, passes: number) => places.set(at, (places.get(at) ?? 0) + passes)
    for (const { at, to } of techniqueOf(child).strands?.strands(workOf(child)) ?? []) {
      add(at, to === null ? STRAND_PASSES.back : STRAND_PASSES.swag)
      if (to !== null) add(to, STRAND_PASSES.swag)
    }
    for (const [at, passes] of places) {
      const spec = child.held?.places[at]?.bead?.id
      if (spec !== undefined) out.set(spec, Math.max(out.get(spec) ?? 0, passes))
    }
  }
  return out
}

/**
 * Holes that wires go through, by the bead of each size that holds most: wire does not flatten, and a hole may be a
 * tenth larger or smaller than the catalogue has it.
 */
function wireChecks(piece: Piece, part: Part, wiresAt: NonNullable<ThreadPath['wiresAt']>): SpecHoleCheck[] {
  const specs = new Map(piece.tray.map((b) => [b.number, b.spec]))
  const most = new Map<string, { wires: readonly number[]; at: HoleAt }>()
  for (let r = 0; r < rowsOf(part); r++)
    for (const [c, number] of partRow(part, r).entries()) {
      const spec = specs.get(number)
      if (spec === undefined) continue
      for (const hole of requireSpec(spec).spacing === undefined ? (['a'] as const) : (['a', 'b'] as const)) {
        const wires = wiresAt(c, r, hole)
        const there = most.get(spec)
        if (wires.length > 0 && (!there || roomInHoleMm(wires).least > roomInHoleMm(there.wires).least + 1e-9))
          most.set(spec, { wires, at: holeAt(part, c, r, hole) })
      }
    }
  return [...most].map(([spec, { wires, at }]): SpecHoleCheck => {
    const hole = requireSpec(spec).h
    const { least, surely } = roomInHoleMm(wires)
    const verdict = passTogether(hole, wires)
    const thickest = Math.max(...wires)
    // The thickest wire that goes easily, where all are as thick.
    const gauge = nextGauge(hole, wires)
    return {
      ...{ verdict, holeMm: hole, leastMm: least, surelyMm: surely, passes: wires.length, spec, where: 'work', at },
      wireMm: thickest,
      helps:
        verdict === 'easy'
          ? []
          : gauge === null
            ? [{ kind: 'larger hole', verdict: 'easy' }]
            : [{ kind: 'wire', gauge, verdict: 'easy' }],
    }
  })
}

/**
 * Needle and hole for every spec that the part uses, and once more for the beads at the ends where a closure is sewn
 * on. Doubled thread fills a hole as two threads at each pass.
 */
export function holeChecks(piece: Piece, part: Part): SpecHoleCheck[] {
  if (!isCounted(part)) return []
  const { supply, tray } = piece
  const counts = tallyPart(part)
  const used = new Set(tray.filter((b) => (counts.get(b.number) ?? 0) > 0).map((b) => b.spec))
  if (used.size === 0) used.add(part.spec)
  const path = pathOf(part)
  const most = mostPassed(piece, part, path)
  const inWork = (id: string) => most(id).passes + supply.reinforce
  if (path.wiresAt) return wireChecks(piece, part, path.wiresAt)
  // A cord is stiffened at its end and goes through by itself, without a needle.
  const { cord } = path
  if (cord) {
    return [...used].map((id) => {
      const found = checkHole(requireSpec(id).h, inWork(id), cord, 0)
      return {
        ...found,
        spec: id,
        where: 'work',
        ...named(most(id).at),
        helps: found.verdict === 'easy' ? [] : [{ kind: 'larger hole', verdict: 'easy' }],
      }
    })
  }
  const check = (id: string, where: SpecHoleCheck['where'], passes: number, at?: HoleAt): SpecHoleCheck => {
    const hole = requireSpec(id).h
    const found = checkHole(
      hole,
      passes * (supply.doubled ? 2 : 1),
      requireThread(supply.thread),
      requireNeedle(supply.needle).eyeMm,
    )
    return {
      ...found,
      passes,
      spec: id,
      where,
      ...named(at),
      helps: found.verdict === 'easy' ? [] : helpsFor(hole, passes, supply, found.verdict),
    }
  }
  const ends =
    sewn(piece) && supply.sewPasses > 0 && fittedPart(piece).id === part.id
      ? endBeads(piece, part)
      : new Map<string, HoleAt>()
  return [
    ...[...used].map((id) => check(id, 'work', inWork(id), most(id).at)),
    ...[...ends].map(([id, at]) => check(id, 'ends', inWork(id) + supply.sewPasses, at)),
    ...[...strandPasses(piece, part)].map(([id, passes]) => check(id, 'strands', inWork(id) + passes)),
  ]
}
