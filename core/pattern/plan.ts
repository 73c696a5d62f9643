import { linesWord } from '../piece/nature'
import { cellsFrom } from '../grid/cells'
import { insertLinesStep, layingSteps, removeLinesStep, type Laying } from '../piece/edit'
import { columnsOf, isGrid, rowsOf, sectionStart, techniqueOf, type Part, type Piece } from '../piece/piece'
import { LIMITS } from '../piece/schema'
import { applySteps, type Step } from '../piece/step'
import { borderIn, type BorderWish } from './border'
import { clampBox } from './clip'
import type { Box } from '../technique/lattice'
import { figureIn, figurePeriod, figureRows, type FigureWish } from './generate'
import { gradientIn, type GradientWish } from './gradient'
import { letteringIn, type LetteringWish } from './lettering'
import { latticeOf } from '../piece/drawing'

/**
 * A pattern by rule and where it goes: into a box, or over the whole repeat, which then takes the rows that the figure
 * needs.
 */
export type PatternWish =
  | { readonly kind: 'figure'; readonly wish: FigureWish }
  | { readonly kind: 'gradient'; readonly wish: GradientWish }
  | { readonly kind: 'border'; readonly wish: BorderWish }
  | { readonly kind: 'lettering'; readonly wish: LetteringWish }

interface PatternPlan {
  readonly steps: readonly Step[]
  /** What should be known before it is laid. */
  readonly notes: readonly string[]
}

function layingOf(part: Part, box: Box, pattern: PatternWish): { laying: Laying; notes: string[] } {
  switch (pattern.kind) {
    case 'figure':
      return { laying: figureIn(part, box, pattern.wish), notes: [] }
    case 'gradient':
      return { laying: gradientIn(part, box, pattern.wish), notes: [] }
    case 'border':
      return { laying: borderIn(part, box, pattern.wish), notes: [] }
    case 'lettering': {
      const { laying, columns, rows, missing, fits } = letteringIn(part, box, pattern.wish)
      const notes = fits
        ? []
        : [
            `The line takes ${columns} across and ${rows} along; there are ${box.columns} and ${box.rows}. ` +
              'Choose less text, the other way, or more room.',
          ]
      if (missing.length > 0) notes.push(`The alphabet has no ${missing.join(' ')}.`)
      return { laying, notes }
    }
  }
}

/** Rows that the repeat should have for a figure: whole periods, as near as can be to what it has. */
function rowsForRepeat(part: Part, wish: FigureWish): number {
  const per = isGrid(part) ? figureRows(latticeOf(part), wish) : Math.max(1, figurePeriod(wish))
  return Math.min(Math.floor(LIMITS.rows / per) * per, per * Math.max(1, Math.round(part.repeat.rows / per)))
}

const PATTERN_NAMES: Record<PatternWish['kind'], string> = {
  figure: 'A figure',
  gradient: 'A blend',
  border: 'A border',
  lettering: 'Lettering',
}

/** Why a pattern has no meaning in a part, in a sentence; empty where it has one. */
export const whyNoPattern = (part: Part, { kind }: Pick<PatternWish, 'kind'>): string =>
  isGrid(part) || kind === 'gradient' || (kind === 'figure' && techniqueOf(part).sideBySide)
    ? ''
    : `${PATTERN_NAMES[kind]} needs a grid, whose beads lie side by side; these ` +
      `${linesWord(part)} lie each for itself. Lay a blend, or copy one ` +
      `${techniqueOf(part).words.line} to the next.`

/** Steps that lay a pattern. `box` null: over the whole repeat. */
export function patternSteps(piece: Piece, part: Part, box: Box | null, pattern: PatternWish): PatternPlan {
  const meaningless = whyNoPattern(part, pattern)
  if (meaningless !== '') return { steps: [], notes: [meaningless] }
  if (box !== null) {
    const inside = clampBox(part, box)
    if (!inside) return { steps: [], notes: ['The selection lies outside the work.'] }
    const { laying, notes } = layingOf(part, inside, pattern)
    return { steps: layingSteps(part, laying), notes }
  }
  const steps: Step[] = []
  const rows = pattern.kind === 'figure' ? rowsForRepeat(part, pattern.wish) : part.repeat.rows
  const notes: string[] = []
  if (rows > part.repeat.rows)
    steps.push(insertLinesStep(part, 'repeat', part.repeat.rows, rows - part.repeat.rows, piece.tray[0]?.number ?? 0))
  else if (rows < part.repeat.rows) steps.push(removeLinesStep(part, 'repeat', rows, part.repeat.rows - rows))
  const lines = isGrid(part) ? 'bead rows' : linesWord(part)
  if (steps.length > 0) notes.push(`The repeat becomes ${rows} ${lines} long, so that the figure closes on itself.`)
  const resized = applySteps(piece, steps)
  if (!resized.ok) return { steps: [], notes: [resized.problems[0]!.says] }
  // One copy is enough: it is the repeat. With none worked yet, the pattern is laid as if there were one.
  const grown = resized.value.parts.find((p) => p.id === part.id)!
  const one = { ...grown, times: Math.max(1, grown.times) }
  const { laying, notes: more } = layingOf(
    one,
    { c: 0, r: sectionStart(one, 'repeat'), columns: columnsOf(one), rows },
    pattern,
  )
  return { steps: [...steps, ...layingSteps(one, laying)], notes: [...notes, ...more] }
}

/** A part that holds nothing but a piece of pattern, for small pictures of it. */
export function partOfClip(
  part: Part,
  clip: { readonly columns: number; readonly rows: number; readonly numbers: readonly number[] },
): Part {
  const none = { columns: clip.columns, rows: 0, blocks: [] }
  return {
    ...part,
    start: none,
    end: none,
    times: 1,
    repeat: cellsFrom(
      clip.columns,
      clip.rows,
      clip.numbers.map((n) => Math.max(0, n)),
    ),
  }
}

export const wholeBox = (part: Part): Box => ({ c: 0, r: 0, columns: columnsOf(part), rows: rowsOf(part) })
