import { runsOf } from '../grid/runs'
import { bestLine, RULE_LIMITS, strandByRule, type StrandRule } from '../hang/rule'
import { lengthForSag } from '../hang/swag'
import { requireSpec } from '../bead/spec'
import type { OwnStrand, StrandPlan, StrandSide } from '../technique/strand-side'
import type { Plan } from '../technique/technique'
import { removeLinesStep, setStep } from './edit'
import { lengthOfLine, partRow, rowsOf, techniqueOf, workOf, type Part, type Piece } from './piece'
import { linesSteps } from './recast'
import type { SetStep, Step } from './step'
import { sameAsEarlier } from './alike'

/** Strands as a designer sees them: lists with totals and lengths, and the rule that made them. */

export const strandSideOf = (part: Part): StrandSide | null => techniqueOf(part).strands ?? null

/** A strand of a part. */
export interface StrandView {
  readonly r: number
  readonly total: number
  readonly longMm: number
  readonly endMm: number
  readonly at: number
  readonly to: number | null
  readonly turning: number
  /** An earlier strand that it is the same as, from 0; null where there is none. */
  readonly sameAs: number | null
  /** Whether it was changed by hand since the rule made it. */
  readonly edited: boolean
}

const lengthOfBead = (piece: Pick<Piece, 'tray'>, usual: string) => {
  const specs = new Map(piece.tray.map((b) => [b.number, requireSpec(b.spec)]))
  return (number: number): number => (specs.get(number) ?? requireSpec(usual)).l
}

/** All strands as a rule makes them, for a part as it hangs. */
function linesByRule(piece: Pick<Piece, 'tray'>, part: Part, side: StrandSide, rule: StrandRule): number[][] {
  const lengthOf = lengthOfBead(piece, part.spec)
  return side
    .starts(workOf(part), rule.strands)
    .map((startMm, i) => strandByRule(rule, i, { startMm, lengthOf }).slice(0, MOST_BEADS))
}

/** Beads that a line can hold. */
const MOST_BEADS = 500

const isLine = (part: Part, r: number, numbers: readonly number[]): boolean =>
  lengthOfLine(part, r) === numbers.length && numbers.every((n, c) => partRow(part, r)[c] === n)

/** Which strand of so many was strand i before there were others: those of the second half from their own side. */
const sourceOf = (i: number, count: number, before: number): number =>
  i < count / 2 ? Math.min(i, before - 1) : before - (count - i)

export function strandsOf(piece: Pick<Piece, 'tray'>, part: Part): StrandView[] {
  const side = strandSideOf(part)
  if (!side) return []
  const { rule } = side.plan(part.plan)
  const byRule = rule && rule.strands === rowsOf(part) ? linesByRule(piece, part, side, rule) : null
  return side.strands(workOf(part)).map((strand, r) => ({
    r,
    total: lengthOfLine(part, r),
    ...strand,
    sameAs: sameAsEarlier(part, r),
    edited: rule !== null && (byRule === null || !isLine(part, r, byRule[r]!)),
  }))
}

const setPlan = (piece: Piece, part: Part, plan: Plan): SetStep =>
  setStep(piece, ['parts', part.id, 'plan'], plan as SetStep['after'])

/**
 * Gives the strands of a part a rule: every strand is made by it, but those that were changed by hand since the rule
 * before made them. All strands lie in the repeat, once.
 */
export function ruleSteps(piece: Piece, part: Part, rule: StrandRule, keepsEdited = true): Step[] {
  const side = strandSideOf(part)
  if (!side) return []
  const before = side.plan(part.plan).rule
  const count = rowsOf(part)
  const was = before && before.strands === count && keepsEdited ? linesByRule(piece, part, side, before) : null
  const lines = linesByRule(piece, part, side, rule).map((numbers, i) => {
    const from = sourceOf(i, rule.strands, count)
    const edited = was !== null && from >= 0 && from < count && !isLine(part, from, was[from]!)
    return edited ? [...partRow(part, from)] : numbers
  })
  // A slope is not alike from both sides.
  const { alike } = side.plan(part.plan)
  const plan = side.withPlan(part.plan, { rule, alike: rule.edge === 'slope' && alike === 'mirror' ? 'free' : alike })
  return [setPlan(piece, part, plan), ...strandSteps(piece, part, lines)]
}

/** Puts lines in place of those of a part that differ; all of them, in the repeat, where there are more or fewer. */
function strandSteps(piece: Piece, part: Part, lines: readonly (readonly number[])[]): Step[] {
  const once = part.start.rows === 0 && part.end.rows === 0 && part.times === 1
  if (!once || part.repeat.rows !== lines.length)
    return linesSteps(piece, part, { start: [], repeat: lines, end: [], times: 1 })
  return lines.flatMap((line, r): Step[] =>
    isLine(part, r, line)
      ? []
      : [
          removeLinesStep(part, 'repeat', r, 1),
          {
            ...{ type: 'lines', do: 'insert', part: part.id, section: 'repeat', at: r },
            lines: [runsOf(Uint16Array.from(line))],
          },
        ],
  )
}

/** A rule whose zone reaches to the line near its own at which the strands end most level. */
export function levelledRule(piece: Pick<Piece, 'tray'>, part: Part, rule: StrandRule, zone: number): StrandRule {
  const side = strandSideOf(part)
  if (!side) return rule
  const lengthOf = lengthOfBead(piece, part.spec)
  const grounds = side.starts(workOf(part), rule.strands).map((startMm) => ({ startMm, lengthOf }))
  const levelMm = Math.round(bestLine(rule, zone, grounds) * 100) / 100
  return { ...rule, zones: rule.zones.map((one, z) => (z === zone ? { ...one, levelMm } : one)) }
}

/** Makes one strand so: what a hand typed. */
export function typedStrandSteps(piece: Piece, part: Part, r: number, numbers: readonly number[]): Step[] {
  const lines = Array.from({ length: rowsOf(part) }, (_, k) => (k === r ? numbers : [...partRow(part, k)]))
  return strandSteps(piece, part, lines)
}

/** Makes a swag hang so far down: as many of its beads, in their order, as come nearest. */
export function sagSteps(piece: Piece, part: Part, r: number, sagMm: number): Step[] {
  const side = strandSideOf(part)
  const spanMm = side?.spanOf(workOf(part), r) ?? null
  const own = [...partRow(part, r)]
  if (spanMm === null || own.length === 0) return []
  const lengthOf = lengthOfBead(piece, part.spec)
  const mean = own.reduce((sum, n) => sum + lengthOf(n), 0) / own.length
  const count = Math.min(MOST_BEADS, Math.max(1, Math.round(lengthForSag(spanMm, sagMm) / mean)))
  return typedStrandSteps(
    piece,
    part,
    r,
    Array.from({ length: count }, (_, k) => own[k % own.length]!),
  )
}

export function strandPlanSteps(piece: Piece, part: Part, change: Partial<StrandPlan>): Step[] {
  const side = strandSideOf(part)
  return side ? [setPlan(piece, part, side.withPlan(part.plan, change))] : []
}

export function ownStrandSteps(piece: Piece, part: Part, strand: number, own: OwnStrand): Step[] {
  const side = strandSideOf(part)
  return side ? [setPlan(piece, part, side.withOwn(part.plan, strand, own))] : []
}

/** Strands that hold the same list, told once. */
export interface StrandCard {
  /** Which, from 1. */
  readonly strands: readonly number[]
  readonly numbers: readonly number[]
  readonly longMm: number
}

/** The lists to write: each once, in the order in which they first come. */
export function strandCards(piece: Pick<Piece, 'tray'>, part: Part): StrandCard[] {
  const cards = new Map<number, { strands: number[]; numbers: number[]; longMm: number }>()
  for (const { r, sameAs, longMm } of strandsOf(piece, part)) {
    const first = cards.get(sameAs ?? -1)
    if (first) first.strands.push(r + 1)
    else cards.set(r, { strands: [r + 1], numbers: [...partRow(part, r)], longMm })
  }
  return [...cards.values()]
}

/** The rule that strands come nearest to, to begin with: as many, of one zone, by their shortest and longest. */
export function guessedRule(part: Part): StrandRule {
  const strands = Math.max(1, Math.min(RULE_LIMITS.strands, rowsOf(part)))
  const turning = Math.max(0, strandSideOf(part)?.strands(workOf(part))[0]?.turning ?? 1)
  const totals = Array.from({ length: rowsOf(part) }, (_, r) => lengthOfLine(part, r))
  const first = [...(rowsOf(part) > 0 ? partRow(part, 0) : [])].filter((n) => n > 0)
  const end = first.slice(Math.max(0, first.length - turning))
  const [least, most] = [Math.min(...totals, Infinity), Math.max(...totals, 0)]
  const held = (n: number): number => Math.max(0, Math.min(RULE_LIMITS.zone, n - turning))
  return {
    strands,
    edge: least === most ? 'straight' : 'point',
    waves: 1,
    zones: [
      {
        beads: [first[0] ?? 1],
        along: 'strand',
        grow: least === most ? 'keep' : 'to',
        from: held(Number.isFinite(least) ? least : 0),
        step: 0,
        every: 1,
        to: held(most),
        levelMm: 0,
        trim: 0,
      },
    ],
    end: end.length > 0 ? end : [first[0] ?? 1],
  }
}
