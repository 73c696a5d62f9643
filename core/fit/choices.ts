import { insertLines, lineAt, linesOf, plainLines, removeLines, type Lines } from '../grid/lines'
import { runsOf } from '../grid/runs'
import { copyLinesStep, insertLinesStep, removeLinesStep, setStep } from '../piece/edit'
import { joinNumbers } from '../piece/join'
import { laidRows, laidWork } from '../piece/laid'
import { columnsOf, fittedPart, techniqueOf, type Part, type Piece } from '../piece/piece'
import { columnStepOf, settingSteps, settled, specSteps, widthSteps } from '../piece/recast'
import { LIMITS, type Fit } from '../piece/schema'
import type { Step } from '../piece/step'
import { sized } from '../piece/sizes'
import type { Settings } from '../technique/technique'
import { neighbourSpecs } from '../bead/spec'
import { tallyPart, totalOf } from '../tally/tally'
import { closureOf, sameClosure, type Closure } from '../wear/closure'
import { colourCycle } from './cycle'
import { extentOf, plainEndsMm, rowMm } from './extent'
import { fitsWell } from './feel'
import { handFor } from './gauge'
import { fitKindOf } from '../wear/kind'
import { fitOf, rowsWanted, type FitResult, type Fitted } from './reckon'

/**
 * What a choice gives way in: nothing, ends that are worked without beads, plain rows at the ends, colour cycles
 * begun, a repeat broken off, a setting by one, the closure, a chain, or the size of the beads; of what hangs a zone
 * of its strands, or rows above them; of wire the size that it is bent to.
 */
export type Way =
  'zone' | 'size' | 'rows' | 'whole' | 'plain' | 'ends' | 'cycle' | 'part' | 'tune' | 'closure' | 'chain' | 'bead'

/** What a choice changes of the piece. */
export interface Choice {
  readonly id: string
  readonly way: Way
  /** What it changes, in words, and the steps that do it, where these are not told by the rest. */
  readonly says?: string
  readonly steps?: readonly Step[]
  /** Copies of the repeat. */
  readonly times: number
  /** Bead rows more (or fewer, negative) at the two ends. */
  readonly startRows: number
  readonly endRows: number
  /** Rows of the repeat begun again after the last copy. */
  readonly cycleRows: number
  /** What is worked without beads at each end, mm; 0 for work that has no such ends. */
  readonly plainMm: number
  readonly closure: Closure
  readonly spec: string
  /** Settings of the part, where one of them is another by one; null if they stay. */
  readonly settings: Settings | null
  readonly fit: FitResult
  /** Beads of the whole part, new rows included. */
  readonly beads: number
  readonly beadsMore: number
  /** Whether it ends on a whole repeat with nothing plain added. */
  readonly whole: boolean
  /** Whether its colours end on a full cycle, the repeat itself whole or not. */
  readonly cycleWhole: boolean
  /** Hours of beading, by the speed of the piece: most and least. */
  readonly hours: { readonly least: number; readonly most: number }
  readonly current: boolean
}

type Change = Pick<Choice, 'times' | 'startRows' | 'endRows' | 'cycleRows' | 'plainMm'>

const plainOf = (part: Part): number => plainEndsMm(part) / 2

const withPlain = (part: Part, mm: number): Part => {
  const { plain } = techniqueOf(part).growth
  return plain && mm !== plainOf(part) ? { ...part, settings: { ...part.settings, [plain.key]: mm } } : part
}

/**
 * Lines at each end of a part that must stay the outermost: leads to a clasp, rows that taper. Rows that are put on or
 * taken off then lie between them and the repeat.
 */
const edgeOf = (part: Part): number => {
  const { first } = techniqueOf(part)
  return first ? (first.edge ?? 1) : 0
}

/**
 * Motifs behind the last repeat that a longer cycle left over: a chain ends more whole without them. None where ends
 * are drawn as they are meant.
 */
function leftOver(part: Part): number {
  const { picks } = techniqueOf(part)
  if (!picks || part.repeat.rows === 0) return 0
  const { start, end } = picks(part, 2)
  const [starts, ends] = [start.length > 0 ? 1 : 0, end.length > 0 ? 1 : 0]
  const rows = part.start.rows + part.times * part.repeat.rows
  const lines = picks(part, rows + part.end.rows - starts - ends)
  const textOf = (m: number): string =>
    lines
      .motif(m)
      .map(({ key }) => key)
      .join()
  // Motifs that go on as the repeat does; a last one that has more or less than the others is meant so.
  const first = rows - starts
  let left = 0
  while (
    left < part.end.rows - ends &&
    textOf(first + left) === textOf(part.start.rows - starts + (left % part.repeat.rows))
  )
    left++
  // So many as a whole repeat has break nothing off.
  return left % part.repeat.rows === 0 ? 0 : left
}

/** Lines as a row of the repeat has them, to be put between the repeat and the lines at an end. */
function innerLines({ start, repeat, end }: Part, at: 'start' | 'end', count: number): Uint16Array[] {
  const from = repeat.rows > 0 ? repeat : at === 'start' ? start : end
  const line = from.rows > 0 ? lineAt(from, at === 'start' ? from.rows - 1 : 0) : new Uint16Array(0)
  return Array.from({ length: count }, () => Uint16Array.from(line))
}

/** The part as a change has it: plain rows at the outer edges, cycles after the last repeat. */
function changed(tray: Piece['tray'], part: Part, { times, startRows, endRows, cycleRows, plainMm }: Change): Part {
  const columns = columnsOf(part)
  const plain = (lines: Lines, at: number, rows: number, number: number) => {
    if (rows === 0) return lines
    return rows > 0
      ? insertLines(lines, at, plainLines(lines, at, rows, number, columns))
      : removeLines(lines, at === 0 ? 0 : at + rows, -rows)
  }
  // Rows of the repeat that are begun again.
  const end = cycleRows > 0 ? insertLines(part.end, 0, linesOf(part.repeat).slice(0, cycleRows)) : part.end
  if (edgeOf(part) > 0)
    return {
      ...withPlain(part, plainMm),
      times,
      start:
        startRows < 0
          ? removeLines(part.start, part.start.rows + startRows, -startRows)
          : insertLines(part.start, part.start.rows, innerLines(part, 'start', startRows)),
      end: endRows < 0 ? removeLines(end, 0, -endRows) : insertLines(end, 0, innerLines(part, 'end', endRows)),
    }
  return {
    ...withPlain(part, plainMm),
    times,
    start: plain(part.start, 0, startRows, plainNumber(tray, part, 'start')),
    end: plain(end, end.rows, endRows, plainNumber(tray, part, 'end')),
  }
}

/** Another closure is offered only where it helps, and brings the fit this near, mm. */
const CLOSURE_REACH_MM = 12
/** A chain as it is usually sold, mm (common practice: 25–50). */
const CHAIN_MM = 50

/**
 * What giving way costs in the order of the list, mm of difference: a fixed price for each way, so that a longer body
 * is never answered by fewer beads. What is taken up by plain ends costs a little more the more there is of it, so
 * that the nearest whole repeat comes first.
 */
export const PRICE: Record<Way, number> = {
  whole: 0,
  zone: 0.4,
  size: 0.3,
  rows: 0.6,
  plain: 0.5,
  cycle: 1,
  ends: 1.5,
  part: 3,
  tune: 3.5,
  closure: 4,
  bead: 6,
  chain: 8,
}
const PLAIN_SHARE = 0.02
/** Of two that the closure reaches, the one nearer to where it is aimed. */
const AIM_SHARE = 0.05

/** How far a finished measure is from what is wanted, mm, anywhere that its closure can be let out to. */
function offMm({ wantedMm, finishedMm, reachMm }: FitResult): number {
  return Math.max(0, finishedMm.nominal - wantedMm, wantedMm - finishedMm.nominal - reachMm)
}

/**
 * How far a fit is off, mm, and of two that the closure reaches, a little of how far from the aim. Grows evenly on
 * both sides of the aim.
 */
const farMm = (fit: FitResult): number => offMm(fit) + AIM_SHARE * Math.abs(fit.beadworkMm.nominal - fit.targetMm)

/**
 * Rows to put on (or take off, negative) at start and end, as evenly as they give; each end keeps a row while the
 * other can give.
 */
function shared(
  rows: number,
  start: number,
  end: number,
  made: boolean,
): { readonly startRows: number; readonly endRows: number } {
  // What is made stays: the beginning gives and takes nothing.
  if (made) return { startRows: 0, endRows: Math.max(rows, 0 - end) }
  if (rows >= 0) return { startRows: Math.ceil(rows / 2), endRows: Math.floor(rows / 2) }
  const less = Math.min(-rows, start + end)
  const keeps = less <= Math.max(0, start - 1) + Math.max(0, end - 1) ? 1 : 0
  const [startGives, endGives] = [Math.max(0, start - keeps), Math.max(0, end - keeps)]
  const fromEnd = Math.max(less - startGives, Math.min(Math.floor(less / 2), endGives))
  return { startRows: 0 - (less - fromEnd), endRows: 0 - fromEnd }
}

/**
 * The counts that come near: whole repeats just under and over what is wanted, with other ends without beads, with
 * whole colour cycles begun again, with a repeat broken off, with longer or shorter plain ends (so the nearest row is
 * always among them), with another closure at its usual length, a chain, and the bead sizes next to this one. Sorted
 * by how far each is from what is wanted and a fixed price for what it gives way in. The remainder is part of every
 * choice. `made`: bead rows from the beginning that are worked already and stay as they are, whatever is chosen.
 */
export function fitChoices(piece: Fitted & Pick<Piece, 'cost'>, made = 0): Choice[] {
  const { fit, cost } = piece
  const part = fittedPart(piece)
  // A single line may be too little for any bead of the stitch: asked of more of them.
  const two = laidRows({ ...part, times: 2 })
  const per = laidRows({ ...part, times: 3 }) - two
  if (per <= 0) return []
  const ends = two - 2 * per
  const cycle = colourCycle(part)
  const left = leftOver(part)
  const now = beadsMade(piece, part, fit)
  const many = fitKindOf(fit.kind).pieces
  const out: Choice[] = []
  /** Place of each choice in the list, millionths of a mm: how far it is off, and what it gives way in. */
  const ranks = new Map<string, number>()

  const build = (change: Partial<Change> & { times: number }, { on = piece as Fitted, of = part } = {}) => {
    const full = { startRows: 0, endRows: 0, cycleRows: 0, plainMm: plainOf(of), ...change }
    return { full, next: changed(on.tray, of, full) }
  }
  /** Whether a change leaves all that is made as it is. */
  const keeps = ({ times, startRows, endRows, cycleRows, plainMm }: Change): boolean => {
    if (made === 0) return true
    const common = part.start.rows + Math.min(times, part.times) * part.repeat.rows
    const outer = edgeOf(part) === 0 || endRows === 0
    const same =
      times === part.times && cycleRows === 0 && outer ? common + part.end.rows + Math.min(0, endRows) : common
    return startRows === 0 && plainMm === plainOf(part) && made <= same
  }
  const offer = (
    way: Way,
    change: Partial<Change> & { times: number },
    {
      closure = fit.closure,
      spec = part.spec,
      on = piece as Fitted,
      of = part,
      far = -1,
      settings = null as Settings | null,
    } = {},
  ) => {
    const { full, next } = build(change, { on, of })
    if (full.times < 1 || full.times > LIMITS.times || !keeps(full)) return
    const same = sameClosure(closure, fit.closure) && spec === part.spec && !settings
    const id = [
      full.times,
      full.startRows,
      full.endRows,
      full.cycleRows,
      full.plainMm,
      closure.kind,
      closure.lengthMm,
      closure.extenderMm,
      spec,
      settings ? JSON.stringify(settings) : '',
    ].join('/')
    if (out.some((c) => c.id === id) || laidRows(next) < 1) return
    const beads = beadsMade(on, next, { ...fit, closure })
    /** Whether a cycle breaks off behind the last repeat. */
    const breaks = left > 0 && full.endRows !== -left
    const ended = full.startRows !== 0 || (full.endRows !== 0 && (left === 0 || breaks))
    const made = fitOf(on, { part: next, fit: { ...fit, closure } })
    const price = way === 'whole' && breaks ? PRICE.cycle : PRICE[way]
    // To a millionth, so that what is equal by its formula is equal.
    ranks.set(id, Math.round((price + (far >= 0 ? far : farMm(made))) * 1e6))
    out.push({
      id,
      way,
      ...full,
      closure,
      spec,
      settings,
      fit: made,
      beads,
      beadsMore: beads - now,
      whole: !ended && !breaks && full.cycleRows === 0,
      cycleWhole: full.cycleRows % cycle === 0,
      hours: { least: (beads * many) / cost.beadsPerHourMost, most: (beads * many) / cost.beadsPerHourLeast },
      current:
        same &&
        full.times === part.times &&
        full.startRows === 0 &&
        full.endRows === 0 &&
        full.cycleRows === 0 &&
        full.plainMm === plainOf(part),
    })
  }
  const whole = (times: number, instead: Fit) => fitOf(piece, { part: { ...part, times }, fit: instead })
  const off = (times: number, instead: Fit) => Math.abs(whole(times, instead).differenceMm)
  /** Whether the closure lets that many out to what is wanted. */
  const reaches = (times: number) => {
    const { finishedMm, wantedMm, reachMm } = whole(times, fit)
    return finishedMm.nominal <= wantedMm && wantedMm <= finishedMm.nominal + reachMm
  }

  const exact = rowsWanted(piece) - ends
  const n = Math.min(LIMITS.times - 1, Math.max(1, Math.floor(exact / per + 1e-9)))
  if (laidRows(part) > 0) offer('whole', { times: part.times })
  // Of several openings any may come nearest, so all counts near the aim that one of them reaches, or nearly so, are
  // whole choices.
  const opened =
    fit.closure.openings > 1
      ? Array.from({ length: 13 }, (_, k) => n - 8 + k).filter(
          (times) => times >= 1 && times <= LIMITS.times && [times - 1, times, times + 1].some(reaches),
        )
      : []
  for (const times of [n, n + 1, ...opened]) offer('whole', { times })
  // Without what a cycle left over all of it is whole.
  if (left > 0) {
    const most = Math.max(1, Math.floor((exact + left) / per + 1e-9))
    for (const times of [most, most + 1]) offer('whole', { times, endRows: -left })
  }

  // Ends without beads take up what is missing, as far as they may: the pattern stays whole.
  const { plain } = techniqueOf(part).growth
  for (const times of plain ? [n, n + 1] : []) {
    const missing = (exact - times * per) * rowMm(piece, part)
    const plainMm = Math.round((plainOf(part) + missing / 2) * 2) / 2
    // They are rounded for the hand; in the order they count as exact.
    if (plainMm >= plain!.least && plainMm <= plain!.most && plainMm !== plainOf(part))
      offer('plain', { times, plainMm }, { far: PLAIN_SHARE * Math.abs(missing) })
  }
  // Cords keep their colours from end to end: there is nothing to lay at the ends.
  const laid = !techniqueOf(part).material.through
  for (const times of laid ? [n, n + 1] : []) {
    const rows = Math.round(exact - times * per)
    // Beads of other sizes make rows of different length, so the next count on either side may come nearer.
    const near = [rows, rows - 1, rows + 1].map((k) => ({
      times,
      ...shared(k, part.start.rows - edgeOf(part), part.end.rows - edgeOf(part), made > 0),
    }))
    const best = near
      .map((change) => ({ change, off: farMm(fitOf(piece, { part: build(change).next })) }))
      .reduce((a, b) => (b.off < a.off - 1e-9 ? b : a)).change
    if (best.startRows !== 0 || best.endRows !== 0) offer('ends', best)
  }
  const cycles = laid ? Math.round((exact - n * per) / cycle) : 0
  if (cycle < per && cycles > 0 && cycles * cycle < per) offer('cycle', { times: n, cycleRows: cycles * cycle })
  // The repeat begun again and broken off where the measure ends: fits any pattern, at the price of a broken figure.
  const step = techniqueOf(part).growth.repeatRows
  const broken = Math.round((exact - n * per) / step) * step
  if (laid && broken > 0 && broken < per && broken % cycle !== 0) offer('part', { times: n, cycleRows: broken })

  const opens = !['none', 'elastic', 'own'].includes(fit.closure.kind)
  for (const times of opens ? [n, n + 1] : []) {
    const best = fitKindOf(fit.kind)
      .closures.filter((kind) => kind !== fit.closure.kind && !['none', 'magnet', 'elastic', 'own'].includes(kind))
      .map((kind) => ({ closure: { ...fit.closure, kind, name: '', lengthMm: closureOf(kind).lengthMm } }))
      .map((c) => ({ ...c, off: off(times, { ...fit, ...c }) }))
      .sort((a, b) => a.off - b.off)[0]
    if (best && best.off <= CLOSURE_REACH_MM && best.off < off(times, fit))
      offer('closure', { times }, { closure: best.closure })
  }
  if (opens && fit.kind !== 'earrings' && fit.closure.extenderMm === 0 && whole(n, fit).differenceMm < -2) {
    offer('chain', { times: n }, { closure: { ...fit.closure, extenderMm: CHAIN_MM } })
  }

  const least = Math.min(...out.filter((c) => c.way === 'whole').map((c) => Math.abs(c.fit.differenceMm)))
  const others = (made > 0 ? [] : neighbourSpecs(part.spec))
    .flatMap((spec) => {
      const of = { ...part, spec }
      const on = {
        ...piece,
        tray: piece.tray.map((b) => (b.spec === part.spec ? { ...b, spec } : b)),
        parts: piece.parts.map((p) => (p === part ? of : p)),
      }
      const times = Math.round((rowsWanted(on, { part: of }) - ends) / per)
      if (times < 1 || times > LIMITS.times) return []
      const result = fitOf(on, { part: { ...of, times } })
      return fitsWell(result.feel) && Math.abs(result.differenceMm) < least - 1
        ? [{ spec, of, on, times, off: Math.abs(result.differenceMm) }]
        : []
    })
    .sort((a, b) => a.off - b.off)
  for (const { spec, of, on, times } of others.slice(0, 2)) offer('bead', { times }, { spec, of, on })

  // A setting by one more or less: every motif changes a little, and as many as fit then are whole.
  const tuned = (made > 0 ? [] : (techniqueOf(part).tunes ?? [])).flatMap(({ key }) =>
    [-1, 1].flatMap((by) => {
      const settings = { ...part.settings, [key]: Number(part.settings[key]) + by }
      const next = settled(piece, part, settings)
      if (!next) return []
      const tray = [...piece.tray, ...next.added]
      const on = sized({ ...piece, tray, parts: piece.parts.map((p) => (p === part ? next.part : p)) })
      const of = on.parts.find(({ id }) => id === part.id)!
      const times = Math.round((rowsWanted(on, { part: of }) - ends) / per)
      if (times < 1 || times > LIMITS.times) return []
      const result = fitOf(on, { part: { ...of, times } })
      return fitsWell(result.feel) && Math.abs(result.differenceMm) < least - 1
        ? [{ settings, of, on, times, off: Math.abs(result.differenceMm) }]
        : []
    }),
  )
  for (const { settings, of, on, times } of tuned.sort((a, b) => a.off - b.off).slice(0, 2))
    offer('tune', { times }, { settings, of, on })

  const rank = (c: Choice) => ranks.get(c.id)!
  return out.sort(
    (a, b) =>
      rank(a) - rank(b) || PRICE[a.way] - PRICE[b.way] || Math.abs(a.fit.differenceMm) - Math.abs(b.fit.differenceMm),
  )
}

/** Beads of a part as it is made, those that join its ends included. */
function beadsMade(on: Fitted, part: Part, fit: Fit): number {
  const here = fittedPart(on)
  return (
    totalOf(tallyPart(part)) +
    joinNumbers({ fit, parts: on.parts.map((p) => (p.id === here.id ? part : p)) }, part).length
  )
}

/** The bead that plain rows at an end are laid in: the one that lies at its outer corner, or the first of the tray. */
function plainNumber(tray: Piece['tray'], part: Part, end: 'start' | 'end'): number {
  const cells = part[end]
  const there = cells.rows > 0 ? lineAt(cells, end === 'start' ? 0 : cells.rows - 1)[0] : 0
  return there || (tray[0]?.number ?? 0)
}

/**
 * Steps that make the piece as a choice has it: plain rows at the outer edges, cycles, count of repeats, closure, size
 * of the beads.
 */
export function choiceSteps(
  piece: Piece,
  { times, startRows, endRows, cycleRows, plainMm, closure, spec, settings, steps: own }: Choice,
): Step[] {
  if (own) return [...own]
  const part = fittedPart(piece)
  const steps: Step[] = settings ? settingSteps(piece, part, settings, piece.tray[0]?.number ?? 0) : []
  if (edgeOf(part) > 0) steps.push(...innerSteps(part, startRows, endRows))
  else steps.push(...outerSteps(piece, part, startRows, endRows))
  if (cycleRows > 0) steps.push(copyLinesStep(part, 'end', 0, 'repeat', 0, cycleRows))
  if (times !== part.times) steps.push(setStep(piece, ['parts', part.id, 'times'], times))
  if (plainMm !== plainOf(part))
    steps.push(setStep(piece, ['parts', part.id, 'settings'], { ...withPlain(part, plainMm).settings }))
  if (!sameClosure(closure, piece.fit.closure)) steps.push(setStep(piece, ['fit', 'closure'], { ...closure }))
  return [...steps, ...specSteps(piece, part, spec)]
}

/** Steps that put plain rows on at the outer edges, or take rows off there. */
function outerSteps({ tray }: Piece, part: Part, startRows: number, endRows: number): Step[] {
  const steps: Step[] = []
  if (startRows > 0) steps.push(insertLinesStep(part, 'start', 0, startRows, plainNumber(tray, part, 'start')))
  else if (startRows < 0) steps.push(removeLinesStep(part, 'start', 0, -startRows))
  if (endRows > 0) steps.push(insertLinesStep(part, 'end', part.end.rows, endRows, plainNumber(tray, part, 'end')))
  else if (endRows < 0) steps.push(removeLinesStep(part, 'end', part.end.rows + endRows, -endRows))
  return steps
}

/** Steps that put lines between the repeat and the lines at its ends, or take them out there. */
function innerSteps(part: Part, startRows: number, endRows: number): Step[] {
  const put = (section: 'start' | 'end', at: number, count: number): Step => ({
    ...{ type: 'lines', do: 'insert', part: part.id, section, at },
    lines: innerLines(part, section, count).map((line) => runsOf(line)),
  })
  return [
    ...(startRows > 0 ? [put('start', part.start.rows, startRows)] : []),
    ...(startRows < 0 ? [removeLinesStep(part, 'start', part.start.rows + startRows, -startRows)] : []),
    ...(endRows > 0 ? [put('end', 0, endRows)] : []),
    ...(endRows < 0 ? [removeLinesStep(part, 'end', 0, -endRows)] : []),
  ]
}

interface WidthChoice {
  readonly columns: number
  readonly widthMm: number
  /** Width less what is wanted, mm. */
  readonly differenceMm: number
  readonly beads: number
  readonly current: boolean
}

/**
 * Counts across next to the width wanted, of those that the stitch allows, with the present one; narrowest first. None
 * where the width does not follow from a count.
 */
export function widthChoices(piece: Fitted): WidthChoice[] {
  const part = fittedPart(piece)
  const now = columnsOf(part)
  const step = columnStepOf(part)
  const nominal = (columns: number) => techniqueOf(part).growth.widthOf({ ...laidWork(part), columns })
  const present = extentOf(piece, part).widthMm.nominal
  const at = (columns: number) => present + (nominal(columns) - nominal(now)) * (handFor(piece, part)?.across ?? 1)
  if (at(now + step) === present) return []
  const guess = techniqueOf(part).growth.nearestColumns(
    Math.max(1, Math.round(now + ((piece.fit.widthMm - present) * step) / (at(now + step) - present))),
    part.settings,
  )
  const counts = new Set(
    [now, guess - step, guess, guess + step].filter(
      (c) => c >= techniqueOf(part).growth.nearestColumns(1, part.settings) && c <= LIMITS.columns,
    ),
  )
  const perColumn = totalOf(tallyPart(part)) / now
  return [...counts]
    .sort((a, b) => a - b)
    .map((columns) => {
      const widthMm = at(columns)
      return {
        columns,
        widthMm,
        differenceMm: widthMm - piece.fit.widthMm,
        beads: Math.round(perColumn * columns),
        current: columns === now,
      }
    })
}

/** Steps that make the fitted part so many beads across; new columns are laid in the bead of its first corner. */
export function widthChoiceSteps(piece: Piece, columns: number): Step[] {
  const part = fittedPart(piece)
  const first = part.start.rows > 0 ? part.start : part.repeat
  return widthSteps(part, columns, (first.rows > 0 ? lineAt(first, 0)[0] : 0) || (piece.tray[0]?.number ?? 0))
}
