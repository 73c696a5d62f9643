import { columnOfKey, keyOf, rowOfKey } from '../grid/key'
import { bad, good, problem, type Result } from '../problem'
import { columnsOf, findPart, type Piece } from './piece'
import { applyStep } from './step'
import { shifted, type CellPosition } from './steps/kind'
import type { CellsStep, ColumnsStep, Patch, RowsStep, Step } from './steps/schema'
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

function cellsMoved(mine: CellsStep, columns: number, move: (c: number, r: number) => number | null): Carried {
  const moved = new Map<number, [number, number]>()
  for (const [index, numbers] of spread(mine.patches)) {
    const to = move(columnOfKey(columns, index), rowOfKey(columns, index))
    if (to === null) return 'conflict'
    moved.set(to, numbers)
  }
  return { step: { ...mine, patches: gathered(moved) } }
}

const touchesRows = (cells: CellsStep, columns: number, at: number, count: number): boolean =>
  cells.patches.some(([index, length]) => index < (at + count) * columns && index + length > at * columns)

function spansOver<T extends RowsStep | ColumnsStep>(mine: T, theirs: T, last: boolean): Carried {
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
  return { step: { ...mine, at } }
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
  const part = findPart(base, mine.part)
  if (!part) return 'conflict'
  const columns = columnsOf(part)
  if (mine.type === 'cells') {
    if (theirs.type === 'cells') return cellsOverCells(mine, theirs)
    if (theirs.type === 'rows') {
      if (theirs.section !== mine.section) return unchanged(mine)
      return cellsMoved(mine, columns, (c, r) => {
        const to = shifted(r, theirs)
        return to === null ? null : keyOf(columns, c, to)
      })
    }
    const wide = theirs.do === 'insert' ? columns + theirs.count : columns - theirs.count
    return cellsMoved(mine, columns, (c, r) => {
      const to = shifted(c, theirs)
      return to === null ? null : keyOf(wide, to, r)
    })
  }
  if (theirs.type === 'cells') {
    if (mine.do === 'insert') return unchanged(mine)
    if (mine.type === 'rows')
      return theirs.section === mine.section && touchesRows(theirs, columns, mine.at, mine.count)
        ? 'conflict'
        : unchanged(mine)
    const hit = [...spread(theirs.patches).keys()].some(
      (i) => columnOfKey(columns, i) >= mine.at && columnOfKey(columns, i) < mine.at + mine.count,
    )
    return hit ? 'conflict' : unchanged(mine)
  }
  if (mine.type === 'rows' && theirs.type === 'rows')
    return mine.section === theirs.section ? spansOver(mine, theirs, last) : unchanged(mine)
  if (mine.type === 'columns' && theirs.type === 'columns') return spansOver(mine, theirs, last)
  return 'conflict'
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
