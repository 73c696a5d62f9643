import { lineAt, type Lines } from '../../grid/lines'
import { removeColumnsStep, removeLinesStep, removeSlotsStep } from '../../piece/edit'
import { freeOf, latticeOf } from '../../piece/drawing'
import { columnsOf, isGrid, techniqueOf, type Part } from '../../piece/piece'
import { counted, lineWord, rowSays } from '../words'
import type { Found, Mend, Rule, Spot } from '../found'

/** A repeat that does not close on itself: its turning row comes twice at the seam, or its own period breaks off. */

const linesOf = (lines: Lines): Uint16Array[] => Array.from({ length: lines.rows }, (_, r) => lineAt(lines, r))

/** Rows of a repeat by what lies in them: equal rows have equal numbers. */
function kinds(lines: Lines): number[] {
  const seen = new Map<string, number>()
  return linesOf(lines).map((line) => {
    const text = line.join()
    if (!seen.has(text)) seen.set(text, seen.size)
    return seen.get(text)!
  })
}

/** Whether a list reads the same from both ends. */
const isMirror = (list: readonly number[]): boolean => list.every((v, k) => v === list[list.length - 1 - k])

/** Whether every row lies as every other, so that a row is its own mirror image along the work. */
function isStraight(part: Part): boolean {
  if (!isGrid(part) || !techniqueOf(part).rowsLieBeside || freeOf(part)) return false
  const { period } = latticeOf(part)
  return period.columns * period.rows === 1
}

/** Distinct rows that a repeat must have before a doubled one is a mistake and not a stripe. */
const LEAST_KINDS = 3

const spotsOf = (part: Part, rows: readonly number[]): Spot[] => rows.map((r) => ({ section: 'repeat', r, c: null }))

/**
 * A repeat that goes up and back by the same rows, turning in its middle on one row: worked again it turns on two, the
 * last and the first.
 */
export function turnsTwice(list: readonly number[]): boolean {
  const n = list.length
  return n >= 5 && n % 2 === 1 && isMirror(list) && new Set(list).size >= LEAST_KINDS && list[0] !== list[1]
}

export const turningRow: Rule = {
  id: 'turn-doubled',
  group: 'counting',
  looksFor: 'A repeat that goes up and back and doubles the row on which it turns.',
  alone: true,
  needs: (part) => part.times > 1 && part.repeat.rows >= 5 && isStraight(part),
  ofPart(part) {
    const { repeat } = part
    if (!turnsTwice(kinds(repeat))) return []
    const spots = spotsOf(part, [0, repeat.rows - 1])
    return [
      {
        weight: 'looks',
        says:
          `The repeat turns in its middle on one ${lineWord(part)}, and on two where it is worked again: ` +
          `${rowSays(part, spots[1]!)} and the first of the next are alike. Leave one of them out.`,
        why: 'Counted from the mat it seems to close; in the band the turn comes twice.',
        spots,
        mends: [
          {
            label: `Take the last ${lineWord(part)} of the repeat out`,
            steps: [removeLinesStep(part, 'repeat', repeat.rows - 1, 1)],
          },
        ],
      },
    ]
  },
}

/**
 * The least number of rows after which a list comes again and again, at least twice and a part; null where it does
 * not, or where it comes out even. `step`: what it must be a multiple of, where not every row lies as the next.
 */
export function brokenPeriod(
  list: readonly number[],
  step = 1,
): { readonly period: number; readonly over: number } | null {
  for (let period = step === 1 ? 2 : step; period <= list.length / 2; period += step) {
    if (list.some((v, k) => k >= period && v !== list[k - period])) continue
    const over = list.length % period
    return over === 0 || new Set(list.slice(0, period)).size < 2 ? null : { period, over }
  }
  return null
}

export const repeatCloses: Rule = {
  id: 'repeat-open',
  group: 'counting',
  looksFor: 'A repeat whose own pattern breaks off where it is worked again.',
  alone: true,
  needs: (part) => part.times > 1 && part.repeat.rows >= 5,
  ofPart(part): Found[] {
    const { repeat } = part
    const list = kinds(repeat)
    const broken = brokenPeriod(list, techniqueOf(part).growth.repeatRows)
    // Of what goes up and back the turn is said.
    if (!broken || turnsTwice(list)) return []
    const { period, over } = broken
    const step = techniqueOf(part).growth.repeatRows
    const word = lineWord(part)
    const more = period - over
    return [
      {
        weight: 'looks',
        says:
          `The pattern comes again every ${counted(period, word)}, and the repeat holds ${repeat.rows}: ` +
          `it breaks off after ${over} of ${period}. Take ${counted(over, word)} out, or put ${more} in.`,
        why: 'Each time the repeat begins again the pattern jumps.',
        spots: spotsOf(
          part,
          Array.from({ length: over }, (_, k) => repeat.rows - over + k),
        ),
        mends:
          over % step === 0
            ? [
                {
                  label: `Take the last ${over === 1 ? word : counted(over, word)} out`,
                  steps: [removeLinesStep(part, 'repeat', repeat.rows - over, over)],
                },
              ]
            : [],
      },
    ]
  },
}

/** Share of the rows of a tube whose pattern comes again round about, before a seam is said to break it. */
const MOST_ROWS = 0.7

/** Rows further on which a tube begins where it ends round about. */
const climbOf = (part: Part): number => techniqueOf(part).climbs?.(part.settings) ?? 0

/** The least period of a row that breaks off at its end; null where it has none, or closes. */
const brokenRound = (line: ArrayLike<number>, step: number): { period: number; over: number } | null =>
  brokenPeriod(Array.from(line), step)

/** Takes columns out at the seam, where the stitch can be worked with what is left. */
function fewer(part: Part, over: number): Mend[] {
  const left = columnsOf(part) - over
  return over > 0 && left > 0 && techniqueOf(part).growth.nearestColumns(left, part.settings) === left
    ? [{ label: `Take ${counted(over, 'column')} out: ${left} round`, steps: [removeColumnsStep(part, left, over)] }]
    : []
}

export const roundCloses: Rule = {
  id: 'round-open',
  group: 'counting',
  looksFor: 'A pattern whose repeat does not divide the round.',
  alone: true,
  needs: (part) => techniqueOf(part).round && techniqueOf(part).rowsLieBeside && climbOf(part) === 0,
  ofPart(part): Found[] {
    const lines = linesOf(part.repeat)
    const patterned = lines.filter((line) => new Set(line).size > 1)
    const step = latticeOf(part).period.columns
    const breaks = patterned.map((line) => brokenRound(line, step))
    const by = new Map<number, number>()
    for (const one of breaks) if (one) by.set(one.period, (by.get(one.period) ?? 0) + 1)
    const [most] = [...by].toSorted((a, b) => b[1] - a[1])
    if (!most || most[1] < MOST_ROWS * patterned.length || most[1] < 2) return []
    const [period] = most
    const { columns } = part.repeat
    const near = [Math.floor(columns / period) * period, Math.ceil(columns / period) * period].filter((n) => n > 0)
    return [
      {
        weight: 'looks',
        says:
          `${period} beads come again round the tube, and ${columns} do not divide by ${period}: the pattern breaks ` +
          `at the seam. ${near.join(' or ')} round would close.`,
        why: 'A tube has no edge to hide where a pattern does not meet.',
        mends: fewer(part, columns - Math.floor(columns / period) * period),
        spots: spotsOf(
          part,
          lines.flatMap((line, r) => (brokenRound(line, step)?.period === period ? [r] : [])).slice(0, 1),
        ),
      },
    ]
  },
}

/** Lines of a strung work whose colours come again, and break off at the end. */
export const colourCycle: Rule = {
  id: 'cycle-open',
  group: 'counting',
  looksFor: 'A cycle of colours that breaks off at the end of a strand.',
  alone: true,
  needs: (part) => part.repeat.ends !== undefined && techniqueOf(part).strands === undefined,
  ofPart(part): Found[] {
    if (techniqueOf(part).wire?.full) return []
    return linesOf(part.repeat).flatMap((line, r): Found[] => {
      const list = [...line]
      const broken = brokenPeriod(list)
      if (!broken || list.length < 3 * broken.period || isMirror(list)) return []
      const { period, over } = broken
      const spot: Spot = { section: 'repeat', r, c: null }
      return [
        {
          weight: 'note',
          says:
            `${rowSays(part, spot)}: its ${period} colours come again, and it ends after ${over} of ${period}. ` +
            `${list.length - over} or ${list.length - over + period} beads end on a whole cycle.`,
          why: 'Side by side with others, or closed to a ring, the break shows.',
          spots: [spot],
          mends: [
            {
              label: `Take ${counted(over, 'bead')} off its end`,
              steps: [removeSlotsStep(part, 'repeat', r, list.length - over, over)],
            },
          ],
        },
      ]
    })
  },
}
