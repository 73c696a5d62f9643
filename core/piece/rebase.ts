import { indexOf, placeOfIndex, type Lines } from '../grid/lines'
import { bad, good, problem, type Result } from '../problem'
import { findPart, type Piece, type SectionName } from './piece'
import { applyStep } from './step'
import { shifted, type CellPosition, type Span } from './steps/kind'
import { spanOfLines } from './steps/lines'
import type { CellsStep, ColumnsStep, LinesStep, Patch, RowsStep, SlotsStep, Step } from './steps/schema'
import { spanOfSlots } from './steps/slots'
import { kindOf } from './steps/table'

/**
 * Where a cell is after a step; null if the step took it away. Mapping composes: over a list, one step after the
 * other.
 */
export function mapPosition(position: CellPosition, step: Step): CellPosition | null {
  const { map, part } = kindOf(step)
  const whose = part(step)
  return !map || (whose !== null && whose !== position.part) ? position : map(step, position)
}

export function mapPositions(position: CellPosition, steps: readonly Step[]): CellPosition | null {
  let at: CellPosition | null = position
  for (const step of steps) at = at && mapPosition(at, step)
  return at
}

/** Each cell of a patch list with its numbers. */
function spread(patches: readonly Patch[]): Map<number, [before: number, after: number]> {
  const out = new Map<number, [number, number]>()
  for (const [index, length, before, after] of patches)
    for (let i = index; i < index + length; i++) out.set(i, [before, after])
  return out
}

function gathered(cells: ReadonlyMap<number, [number, number]>): Patch[] {
  const out: Patch[] = []
  for (const index of [...cells.keys()].sort((a, b) => a - b)) {
    const [before, after] = cells.get(index)!
    if (before === after) continue
    const last = out.at(-1)
    if (last && last[0] + last[1] === index && last[2] === before && last[3] === after) last[1]++
    else out.push([index, 1, before, after])
  }
  return out
}

/** Two steps done one after the other as one, where that is possible; null where it is not. */
export function mergeSteps(first: Step, second: Step): Step | null {
  if (
    first.type === 'cells' &&
    second.type === 'cells' &&
    first.part === second.part &&
    first.section === second.section
  ) {
    const cells = spread(first.patches)
    for (const [index, [before, after]] of spread(second.patches)) {
      const earlier = cells.get(index)
      if (earlier && earlier[1] !== before) return null
      cells.set(index, [earlier ? earlier[0] : before, after])
    }
    return { ...first, patches: gathered(cells) }
  }
  if (first.type === 'set' && second.type === 'set' && first.path.join('/') === second.path.join('/'))
    return { ...first, after: second.after }
  return null
}

type Carried = { step: Step | null } | 'conflict'

const unchanged = (step: Step): Carried => ({ step })

function cellsOverCells(mine: CellsStep, theirs: CellsStep): Carried {
  if (mine.section !== theirs.section) return unchanged(mine)
  const own = spread(mine.patches)
  for (const [index, [, after]] of spread(theirs.patches)) {
    const here = own.get(index)
    if (!here) continue
    if (here[1] !== after) return 'conflict'
    own.delete(index)
  }
  return { step: own.size === 0 ? null : { ...mine, patches: gathered(own) } }
}

/** Which places of a section a patch list names. */
const placesIn = (step: CellsStep, lines: Lines): CellPosition[] =>
  [...spread(step.patches).keys()].map((index) => ({
    part: step.part,
    section: step.section,
    ...placeOfIndex(lines, index),
  }))

const sectionIn = (piece: Piece, part: string, section: SectionName): Lines | undefined =>
  findPart(piece, part)?.[section]

/** My beads where a step that moves places has put them. */
function cellsMoved(mine: CellsStep, theirs: Step, base: Piece): Carried {
  const { part, section } = mine
  const before = sectionIn(base, part, section)
  const moved = applyStep(base, theirs)
  const after = moved.ok && sectionIn(moved.value, part, section)
  if (!before || !after) return 'conflict'
  const cells = new Map<number, [number, number]>()
  for (const [index, numbers] of spread(mine.patches)) {
    const to = mapPosition({ part, section, ...placeOfIndex(before, index) }, theirs)
    if (to === null) return 'conflict'
    cells.set(indexOf(after, to.c, to.r), numbers)
  }
  return { step: { ...mine, patches: gathered(cells) } }
}

/** My step that moves places, over beads that are laid: it stands where it takes none of them out. */
function movedOverCells(mine: MovingStep, theirs: CellsStep, base: Piece): Carried {
  if (mine.do === 'insert') return unchanged(mine)
  const lines = sectionIn(base, theirs.part, theirs.section)
  return !lines || placesIn(theirs, lines).some((place) => mapPosition(place, mine) === null)
    ? 'conflict'
    : unchanged(mine)
}

/** Steps that put places in or take them out, so that others move. */
type MovingStep = RowsStep | ColumnsStep | LinesStep | SlotsStep

/** Where my span begins when theirs came first; a conflict where one takes out what the other stands in. */
function spanOver(mine: Span, theirs: Span, last: boolean): { readonly at: number } | 'conflict' {
  if (mine.do === 'remove') {
    const end = mine.at + mine.count
    if (theirs.do === 'insert') {
      if (theirs.at > mine.at && theirs.at < end) return 'conflict'
    } else if (theirs.at < end && theirs.at + theirs.count > mine.at) return 'conflict'
  } else if (theirs.do === 'remove' && mine.at > theirs.at && mine.at < theirs.at + theirs.count) return 'conflict'
  const at =
    theirs.do === 'insert'
      ? mine.at > theirs.at || (mine.at === theirs.at && (last || mine.do === 'remove'))
        ? mine.at + theirs.count
        : mine.at
      : mine.at >= theirs.at + theirs.count
        ? mine.at - theirs.count
        : mine.at
  return { at }
}

const spanOf = (step: MovingStep): Span =>
  step.type === 'lines' ? spanOfLines(step) : step.type === 'slots' ? spanOfSlots(step) : step

function spansOver<T extends MovingStep>(mine: T, theirs: MovingStep, last: boolean): Carried {
  const over = spanOver(spanOf(mine), spanOf(theirs), last)
  return over === 'conflict' ? over : { step: { ...mine, at: over.at } }
}

/** My places in a line, over lines that came or went. */
function slotsOverLines(mine: SlotsStep, theirs: LinesStep): Carried {
  const line = shifted(mine.line, spanOfLines(theirs))
  return line === null ? 'conflict' : { step: { ...mine, line } }
}

/** My lines, over places that came or went in one line: gone with a line that I take out, they are for a person. */
const linesOverSlots = (mine: LinesStep, theirs: SlotsStep): Carried =>
  mine.do === 'remove' && shifted(theirs.line, spanOfLines(mine)) === null ? 'conflict' : unchanged(mine)

/** Two steps that move places. */
function movedOverMoved(mine: MovingStep, theirs: MovingStep, last: boolean): Carried {
  if (mine.type === 'columns' || theirs.type === 'columns')
    return mine.type === theirs.type ? spansOver(mine, theirs, last) : 'conflict'
  if (mine.section !== theirs.section) return unchanged(mine)
  if (mine.type === 'slots' && theirs.type === 'slots')
    return mine.line === theirs.line ? spansOver(mine, theirs, last) : unchanged(mine)
  if (mine.type === 'slots' && theirs.type === 'lines') return slotsOverLines(mine, theirs)
  if (mine.type === 'lines' && theirs.type === 'slots') return linesOverSlots(mine, theirs)
  return mine.type === theirs.type ? spansOver(mine, theirs, last) : 'conflict'
}

/** Whether one path is the other or lies inside it. */
const overlaps = (a: readonly (string | number)[], b: readonly (string | number)[]): boolean => {
  const short = Math.min(a.length, b.length)
  for (let i = 0; i < short; i++) if (a[i] !== b[i]) return false
  return true
}

const partOf = (step: Step): string | null => kindOf(step).part(step)

/**
 * My step as it must read when theirs came first, both made on `base`. A null step: theirs did the same already.
 * 'conflict': both changed the same thing to different ends, or one took away what the other changed; a person
 * decides.
 * `last`: of two things put in at one place, mine goes behind theirs.
 */
function carry(mine: Step, theirs: Step, base: Piece, last: boolean): Carried {
  if (theirs.type === 'set' && mine.type === 'set') {
    if (!overlaps(mine.path, theirs.path)) return unchanged(mine)
    return mine.path.length === theirs.path.length && JSON.stringify(mine.after) === JSON.stringify(theirs.after)
      ? { step: null }
      : 'conflict'
  }
  // Things put on or taken off a list: simple cases commute, the rest is for a person.
  if (theirs.type === 'part' || mine.type === 'part') {
    if (theirs.type === 'part' && mine.type === 'part') return 'conflict'
    const [structural, other] =
      theirs.type === 'part' ? [theirs, mine] : [mine as Extract<Step, { type: 'part' }>, theirs]
    return structural.do === 'remove' && partOf(other) === structural.value.id ? 'conflict' : unchanged(mine)
  }
  if (theirs.type === 'tray' || mine.type === 'tray') {
    if (theirs.type === 'tray' && mine.type === 'tray') return 'conflict'
    const [structural, other] =
      theirs.type === 'tray' ? [theirs, mine] : [mine as Extract<Step, { type: 'tray' }>, theirs]
    if (other.type === 'set')
      return other.path[0] === 'tray' && other.path[1] === structural.bead.number ? 'conflict' : unchanged(mine)
    return structural.do === 'remove' ? 'conflict' : unchanged(mine)
  }
  if (theirs.type === 'set' || mine.type === 'set') return unchanged(mine)
  if (mine.part !== theirs.part) return unchanged(mine)
  if (!findPart(base, mine.part)) return 'conflict'
  if (mine.type === 'cells') {
    if (theirs.type === 'cells') return cellsOverCells(mine, theirs)
    // Only columns go through all sections.
    return theirs.type !== 'columns' && theirs.section !== mine.section
      ? unchanged(mine)
      : cellsMoved(mine, theirs, base)
  }
  return theirs.type === 'cells' ? movedOverCells(mine, theirs, base) : movedOverMoved(mine, theirs, last)
}

/**
 * Carries my steps over theirs; both lists start from `base`. The result applies to base + theirs. Where the two
 * cannot both stand, the answer names it and nothing is changed.
 */
export function rebaseSteps(mine: readonly Step[], theirs: readonly Step[], base: Piece, last = true): Result<Step[]> {
  // A grid of carries: my steps become theirs-after, their steps become mine-after, one square at a time.
  let over = [...theirs]
  let at = base
  const out: Step[] = []
  for (const own of mine) {
    let step: Step | null = own
    const next: Step[] = []
    let here: Piece = at
    for (const other of over) {
      if (step === null) {
        next.push(other)
        continue
      }
      const carried: Carried = carry(step, other, here, last)
      const counter: Carried = carry(other, step, here, !last)
      if (carried === 'conflict' || counter === 'conflict') {
        return bad(
          problem(
            'edits-clash',
            partOf(own) ?? 'piece',
            'The same place was changed here and elsewhere. Choose which change stands.',
          ),
        )
      }
      if (counter.step) next.push(counter.step)
      const moved = applyStep(here, other)
      if (!moved.ok) return moved
      here = moved.value
      step = carried.step
    }
    const moved = applyStep(at, own)
    if (!moved.ok) return moved
    at = moved.value
    over = next
    if (step) out.push(step)
  }
  return good(out)
}
