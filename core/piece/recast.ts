import { requireLattice } from '../technique/stitch'
import { keyOf } from '../grid/key'
import { nextOnTray, type TrayBead } from '../bead/bead'
import { cellsFrom, emptyCells } from '../grid/cells'
import { insertLines, lineAt, linesOf, raggedFrom, removeLines, type Lines } from '../grid/lines'
import { runsOf } from '../grid/runs'
import { latticeOf } from './drawing'
import { siteOf, type Lattice } from '../technique/lattice'
import { requireSpec } from '../bead/spec'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { bad, good, type Result } from '../problem'
import { readRecipe } from '../recipe/check'
import type { Told } from '../technique/recipe-board'
import type { Plan, Settings, Technique } from '../technique/technique'
import { columnsForWidth, habitOf } from './habit'
import { partToFile } from './codec'
import { sized } from './sizes'
import { copyLinesStep, insertColumnsStep, removeColumnsStep, removeLinesStep, setStep } from './edit'
import {
  beadOf,
  columnsOf,
  isGrid,
  partRow,
  rowsOf,
  SECTIONS,
  wholePart,
  workOf,
  type Part,
  type Piece,
  type SectionName,
} from './piece'
import { beadsOfSide, hangingOn } from './joint'
import { pickedAnew } from './picked'
import { LIMITS, type Joint, type Side } from './schema'
import type { SetStep, Step } from './step'

/** Changes of how a part is made. The pattern stays bead for bead; what its size becomes follows. */

/** How many columns at a time a part can be widened or narrowed by. */
export function columnStepOf(part: Part): number {
  const technique = requireTechnique(part.technique)
  const now = columnsOf(part)
  const work = { rows: Math.max(2, rowsOf(part)), settings: part.settings }
  for (let n = 1; n <= 14; n++) if (technique.check({ ...work, columns: now + n }).length === 0) return n
  return 1
}

/**
 * Makes the part `columns` across: new ones are put on at the right edge in the bead `number`, surplus ones come off
 * there.
 */
export function widthSteps(part: Part, columns: number, number: number): Step[] {
  const now = columnsOf(part)
  if (columns > now) return [insertColumnsStep(part, now, columns - now, number)]
  return columns < now && columns > 0 ? [removeColumnsStep(part, columns, now - columns)] : []
}

/**
 * The techniques that a part can become, its own among them: what keeps lines of their own lengths and what keeps a
 * grid have no beads in common places.
 */
export const becomes = (part: Part): readonly Technique[] =>
  TECHNIQUES.filter((t) => t.id === part.technique || (isGrid(part) && t.store === 'cells'))

/**
 * Moves the part to another stitch; `habit` says how its maker usually works what the present stitch does not say. A
 * count across that the stitch forbids is brought to the nearest that it allows.
 */
export function stitchSteps(
  piece: Piece,
  part: Part,
  technique: string,
  number: number,
  habit: Settings = {},
): Step[] {
  const next = requireTechnique(technique)
  if (technique === part.technique || !becomes(part).includes(next)) return []
  // What both stitches let one choose stays as it is.
  const kept = next.settings.safeParse({ ...habitOf(technique, habit), ...habitOf(technique, part.settings) })
  const own = kept.success ? kept.data : next.settings.parse(habitOf(technique, habit))
  if (next.material !== requireTechnique(part.technique).material) return materialSteps(piece, part, next, own, number)
  return [
    ...widthSteps(part, next.growth.nearestColumns(columnsOf(part), own), number),
    setStep(piece, ['parts', part.id, 'technique'], technique),
    setStep(piece, ['parts', part.id, 'settings'], { ...own }),
  ]
}

/** Lines of a part as they are when its settings are others, where its technique has them follow. */
function relinedNumbers(part: Part, settings: Settings): Readonly<Record<SectionName, number[][]>> {
  const technique = requireTechnique(part.technique)
  const count = rowsOf(part)
  const lines = (section: SectionName): number[][] => {
    const own = part[section]
    // Lines of a repeat stand for all their copies: none of them is the first or the last, if there are more.
    const first = section === 'end' ? count - own.rows : section === 'start' ? 0 : Math.max(1, part.start.rows)
    return linesOf(own).map((line, k) => [
      ...technique.relined!(
        [...line],
        { r: first + k, count: section === 'repeat' ? Infinity : count },
        part.settings,
        settings,
      ),
    ])
  }
  return { start: lines('start'), repeat: lines('repeat'), end: lines('end') }
}

/** The same as steps. */
function relinedSteps(part: Part, settings: Settings): Step[] {
  const numbers = relinedNumbers(part, settings)
  return SECTIONS.flatMap((section) => {
    const lines = part[section]
    const next = numbers[section]
    if (next.every((line, k) => line.join() === lineAt(lines, k).join())) return []
    return [
      removeLinesStep(part, section, 0, lines.rows),
      { type: 'lines' as const, do: 'insert' as const, part: part.id, section, at: 0, lines: next.map(runsOf) },
    ]
  })
}

/**
 * Changes how a part is worked: a count across that the settings ask for follows, in the bead `number`, and so do the
 * lines where the settings say how many beads they hold.
 */
export function settingSteps(piece: Piece, part: Part, settings: Settings, number: number): Step[] {
  const technique = requireTechnique(part.technique)
  const parsed = technique.settings.safeParse(settings)
  const set = setStep(piece, ['parts', part.id, 'settings'], { ...settings })
  if (!parsed.success) return [set]
  if (technique.relined) return [set, ...relinedSteps(part, parsed.data)]
  if (technique.wire?.full) return [set, ...fullSteps(piece, { ...part, settings: parsed.data }, part.settings)]
  if (technique.picks) return [set, ...pickedSteps(piece, part, parsed.data)]
  // Lines have no count across that settings could ask for.
  if (!isGrid(part)) return [set]
  return [set, ...widthSteps(part, technique.growth.nearestColumns(columnsOf(part), parsed.data), number)]
}

/**
 * From beads to plain cords, or back. Cords keep the colours of the first row of the repeat, one to a strand, in as
 * many rounds as there were rows; beads begin with as many rows as there were rounds. The tray changes from beads to
 * cords with it.
 */
function materialSteps(piece: Piece, part: Part, next: Technique, settings: Settings, number: number): Step[] {
  const spec = next.material.usualSpec
  const columns = next.growth.nearestColumns(columnsOf(part), settings)
  const first = rowsOf(part) === 0 ? [] : [...partRow(part, Math.min(part.start.rows, rowsOf(part) - 1))]
  const row = Array.from({ length: columns }, (_, c) => first[c] ?? number)
  const times = Math.max(1, Math.min(LIMITS.times, rowsOf(part)))
  const none = emptyCells(columns, 0)
  const made: Part = {
    ...part,
    id: freePartId(piece, part.id),
    technique: next.id,
    settings,
    spec,
    times: Math.ceil(times / next.growth.repeatRows),
    start: none,
    repeat: cellsFrom(
      columns,
      next.growth.repeatRows,
      Array.from({ length: next.growth.repeatRows }, () => row).flat(),
    ),
    end: none,
  }
  return [
    ...exchangeSteps(piece, part, made),
    ...piece.tray.filter((b) => b.spec === part.spec).map((b) => setStep(piece, ['tray', b.number, 'spec'], spec)),
  ]
}

/**
 * Makes the part of another size of bead: the grid is drawn for it, and every bead of the tray of the old size becomes
 * one of the new.
 */
export function specSteps(piece: Piece, part: Part, spec: string): Step[] {
  if (spec === part.spec) return []
  return [
    setStep(piece, ['parts', part.id, 'spec'], spec),
    ...piece.tray.filter((b) => b.spec === part.spec).map((b) => setStep(piece, ['tray', b.number, 'spec'], spec)),
  ]
}

/** Beads across that come nearest to the width wanted. */
export const columnsWanted = (part: Part, widthMm: number): number =>
  columnsForWidth(part.technique, part.settings, part.spec, widthMm)

/** What a move to another stitch does to the pattern, in plain sentences; none if the work stays as it looks. */
export function conversionNotes(part: Part, technique: string): string[] {
  const [from, to] = [requireTechnique(part.technique), requireTechnique(technique)]
  if (from === to || !becomes(part).includes(to)) return []
  const settings = to.settings.parse({})
  const bead = beadOf(part)
  const notes: string[] = []
  if (to.material !== from.material) return [to.material.arrival]
  const columns = to.growth.nearestColumns(columnsOf(part), settings)
  if (columns !== columnsOf(part)) notes.push(`${columnsOf(part)} beads across become ${columns}.`)
  const lattice = requireLattice(to, { bead, settings, columns })
  if (isStraight(latticeOf(part)) !== isStraight(lattice))
    notes.push(
      'Every bead keeps its place in the grid, but rows and columns lie differently: edges of the pattern ' +
        'shift by up to half a bead.',
    )
  if (from.voids || to.voids)
    notes.push('Right-angle weave counts the edges of squares, so the pattern falls on other places.')
  if (from.round !== to.round)
    notes.push(
      to.round
        ? 'The first column will touch the last: the pattern should meet at the seam.'
        : 'The round is opened: its first and last columns become edges.',
    )
  if (part.repeat.rows % to.growth.repeatRows !== 0)
    notes.push(
      `The repeat has ${part.repeat.rows} rows; this stitch needs a multiple of ${to.growth.repeatRows}, or colours ` +
        'slip sideways at every seam.',
    )
  return notes
}

const isStraight = (lattice: Lattice): boolean =>
  lattice.sites.every((s) => s.dx === lattice.sites[0]!.dx && s.dy === lattice.sites[0]!.dy && s.turnDegrees === 0)

/**
 * Turns the work by a quarter without loss: columns become rows, and peyote becomes brick or the other way round. The
 * repeat is written out, since it would run across. Null where the stitch has no such fellow or the turned work would
 * not fit.
 */
export function quarterTurnSteps(piece: Piece, part: Part): Step[] | null {
  if (!isGrid(part)) return null
  const columns = columnsOf(part)
  const rows = rowsOf(part)
  const wanted = requireTechnique(part.technique).quarter?.(rows)
  if (wanted === undefined || rows === 0 || rows > LIMITS.columns) return null
  const technique = requireTechnique(wanted)
  if (technique.check({ columns: rows, rows: columns, settings: technique.settings.parse({}) }).length > 0) return null
  // Which columns lie low, or which rows lie aside, must stay as it is: the side to start from follows from that.
  const from = latticeOf(part)
  const sides = ['left', 'right'].map((side) => technique.settings.parse({ start: side }))
  const settings = sides.find((own) => {
    const to = requireLattice(technique, { bead: beadOf(part), settings: own, columns: rows })
    const lag = (a: number, b: number) => Math.round((a - b) * 1e6)
    return (
      [0, 1].every(
        (k) => lag(siteOf(to, 0, k).dx, siteOf(to, 0, 0).dx) === lag(siteOf(from, k, 0).dy, siteOf(from, 0, 0).dy),
      ) &&
      [0, 1].every(
        (k) => lag(siteOf(to, k, 0).dy, siteOf(to, 0, 0).dy) === lag(siteOf(from, 0, k).dx, siteOf(from, 0, 0).dx),
      )
    )
  })
  if (!settings) return null
  const flat = wholePart(part)
  const turned = new Uint16Array(flat.length)
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) turned[keyOf(rows, r, c)] = flat[keyOf(columns, c, r)]!
  const none = emptyCells(rows, 0)
  const next: Part = {
    ...part,
    id: freePartId(piece, part.id),
    technique: wanted,
    settings,
    times: 1,
    start: none,
    repeat: cellsFrom(rows, columns, turned),
    end: none,
  }
  return exchangeSteps(piece, part, next, (side) => QUARTER_SIDE[side])
}

/**
 * Makes lines of the rows of a part, each with its beads: a strip becomes work between cords. Its repeat stays a
 * repeat. Null where its stitch does not become such work.
 */
export function asLinesSteps(piece: Piece, part: Part): Step[] | null {
  const to = requireTechnique(part.technique).asLines
  if (!to || !isGrid(part)) return null
  const technique = requireTechnique(to.technique)
  const { columns } = part.repeat
  const next: Part = {
    ...part,
    id: freePartId(piece, part.id),
    technique: technique.id,
    settings: technique.settings.parse(to.settings(part.settings)),
    ...(technique.plan ? { plan: technique.plan.parse({}) } : {}),
    start: raggedFrom(linesOf(part.start)),
    repeat: raggedFrom(linesOf(part.repeat)),
    end: raggedFrom(linesOf(part.end)),
  }
  return technique.check({ ...next, columns, rows: rowsOf(part) }).length > 0 ? null : exchangeSteps(piece, part, next)
}

/** Gives a part of lines another text for its plan: each line becomes what the new one picks up there. */
export function scriptSteps(piece: Piece, part: Part, text: string): Result<Step[]> {
  const { script } = requireTechnique(part.technique)
  if (!script || !part.plan) return good([])
  const read = script.read(text, part.plan)
  return read.ok ? good(planSteps(piece, part, read.value)) : read
}

/** Another plan, and the lines as it picks them up. */
const planSteps = (piece: Piece, part: Part, plan: Plan, wished?: ReadonlyMap<string, number>): Step[] => {
  const lines = pickedAnew(piece, part, { settings: part.settings, plan }, wished)
  return lines
    ? [
        ...trayAdded(piece, lines.added),
        setStep(piece, ['parts', part.id, 'plan'], plan as SetStep['after']),
        ...linesSteps(piece, part, lines),
      ]
    : []
}

/**
 * Gives a part another recipe, or its own with other values of its fields. One that ships is copied into the piece
 * with its lines as they are, under the technique that keeps such recipes; a problem where the recipe is not sound.
 * `wished` names beads of the tray for parts that nothing played before.
 */
export function recipeSteps(
  piece: Piece,
  part: Part,
  told: Told,
  wished?: ReadonlyMap<string, number>,
): Result<Step[]> {
  const technique = requireTechnique(part.technique)
  const side = technique.recipe
  if (!side) return good([])
  const read = readRecipe(told.recipe)
  if (!read.ok) return read
  const plan = side.plan({ recipe: read.value, params: withinFields(read.value, told.params) })
  const kept = requireTechnique(side.keptBy)
  const settings = kept === technique ? part.settings : kept.settings.parse({})
  const faults = kept.check({ columns: columnsOf(part), rows: rowsOf(part), settings, plan })
  if (faults.length > 0) return bad(...faults)
  if (kept === technique) return good(planSteps(piece, part, plan, wished))
  const lines = pickedAnew(piece, part, { technique: kept.id, settings, plan }, wished)
  if (!lines) return good([])
  const put: Part = {
    ...part,
    id: freePartId(piece, part.id),
    ...{ technique: kept.id, settings, plan, times: lines.times },
    start: raggedOf(lines.start),
    repeat: raggedOf(lines.repeat),
    end: raggedOf(lines.end),
  }
  return good([...trayAdded(piece, lines.added), ...exchangeSteps(piece, part, put)])
}

/** Values of fields that a recipe has, each within its bounds. */
const withinFields = ({ params }: Told['recipe'], values: Told['params']): Told['params'] =>
  Object.fromEntries(
    params.map(({ id, least, most, usual }) => [id, Math.max(least, Math.min(most, values[id] ?? usual))]),
  )

const raggedOf = (lines: readonly (readonly number[])[]): Lines => raggedFrom(lines.map((line) => [...line]))

const trayAdded = (piece: Piece, added: readonly TrayBead[]): Step[] =>
  added.map((bead, k) => ({ type: 'tray', do: 'insert', at: piece.tray.length + k, bead }))

/** A part as its settings make it, and what its tray needs besides; null where they are none of its technique’s. */
export function settled(
  { tray }: Pick<Piece, 'tray'>,
  part: Part,
  settings: Settings,
): { readonly part: Part; readonly added: readonly TrayBead[] } | null {
  const technique = requireTechnique(part.technique)
  const parsed = technique.settings.safeParse(settings)
  if (!parsed.success) return null
  const to = { settings: parsed.data, ...(part.plan ? { plan: part.plan } : {}) }
  const next = pickedAnew({ tray }, part, to)
  if (next) {
    const { added, times } = next
    const [start, repeat, end] = SECTIONS.map((section) => raggedOf(next[section]))
    return { part: { ...part, ...to, times, start: start!, repeat: repeat!, end: end! }, added }
  }
  if (!technique.relined && !technique.wire?.full) return { part: { ...part, ...to }, added: [] }
  const lines = technique.relined
    ? { ...relinedNumbers(part, parsed.data), times: part.times }
    : fullLines({ ...part, ...to }, part.settings)
  return {
    part: {
      ...part,
      ...to,
      times: lines.times,
      start: raggedFrom(lines.start),
      repeat: raggedFrom(lines.repeat),
      end: raggedFrom(lines.end),
    },
    added: [],
  }
}

/** Lines of a part as they are when each is full, of work on wire; `from`: its settings before these. */
export function fullLines(
  part: Part,
  from?: Settings,
): Readonly<Record<SectionName, number[][]>> & { readonly times: number } {
  const { wire } = requireTechnique(part.technique)
  // A repeat that is worked more than once is full if its first copy is.
  const lines = SECTIONS.flatMap((section) => linesOf(part[section]).map((line) => [...line]))
  const full = (wire?.full?.(lines, workOf({ ...part, times: Math.min(1, part.times) }), from) ?? lines).map(
    (line) => [...line],
  )
  // Where there are more or fewer than there were, they are all one repeat.
  if (full.length !== lines.length) return { start: [], repeat: full, end: [], times: 1 }
  let at = 0
  const of = (section: SectionName) => full.slice(at, (at += part[section].rows))
  return { start: of('start'), repeat: of('repeat'), end: of('end'), times: part.times }
}

/** Steps that fill them. */
export const fullSteps = (piece: Piece, part: Part, from?: Settings): Step[] =>
  linesSteps(piece, part, fullLines(part, from))

/** Lines of a part by what its technique picks up when its settings are others. */
function pickedSteps(piece: Piece, part: Part, settings: Settings): Step[] {
  const next = pickedAnew(piece, part, { settings, ...(part.plan ? { plan: part.plan } : {}) })
  return next ? [...trayAdded(piece, next.added), ...linesSteps(piece, part, next)] : []
}

/** Lines of a part in place of those that it has; sections that stay the same are left alone. */
export function linesSteps(
  piece: Piece,
  part: Part,
  next: Readonly<Record<SectionName, readonly (readonly number[])[]>> & { readonly times: number },
): Step[] {
  const changed = SECTIONS.flatMap((section): Step[] => {
    const [now, then] = [part[section], next[section]]
    if (now.rows === then.length && then.every((line, k) => line.join() === lineAt(now, k).join())) return []
    return [
      ...(now.rows > 0 ? [removeLinesStep(part, section, 0, now.rows)] : []),
      ...(then.length > 0
        ? [
            {
              type: 'lines' as const,
              do: 'insert' as const,
              part: part.id,
              section,
              at: 0,
              lines: then.map((line) => runsOf(Uint16Array.from(line))),
            },
          ]
        : []),
    ]
  })
  return [...changed, ...(next.times === part.times ? [] : [setStep(piece, ['parts', part.id, 'times'], next.times)])]
}

/** Rows become columns: what was joined at its first row is joined at its first column. */
const QUARTER_SIDE: Record<Side, Side> = { start: 'left', left: 'start', end: 'right', right: 'end' }

/**
 * Puts a part in the place of another: what hangs on it stays there, at the beads that are left of those it hung at.
 * `turned` says which side becomes of each of its sides.
 */
function exchangeSteps(piece: Piece, part: Part, next: Part, turned: (side: Side) => Side = (side) => side): Step[] {
  const at = piece.parts.findIndex((p) => p.id === part.id)
  const put: Part = { ...next, on: part.on && { ...part.on, by: turned(part.on.by) } }
  const rehung = (on: Joint): Joint => {
    const side = turned(on.at)
    return { ...on, part: put.id, at: side, holes: on.holes.filter((hole) => hole <= beadsOfSide(put, side)) }
  }
  return [
    { type: 'part', do: 'insert', at, value: partToFile(put) },
    ...hangingOn(piece.parts, part.id).map((child) =>
      setStep(piece, ['parts', child.id, 'on'], rehung(child.on!) as SetStep['after']),
    ),
    { type: 'part', do: 'remove', at: at + 1, value: partToFile(part) },
    ...(piece.fit.part === part.id ? [setStep(piece, ['fit', 'part'], put.id)] : []),
  ]
}

/** An id that no part of the piece has, made from a wanted one. */
function freePartId(piece: Piece, wanted: string): string {
  const stem = wanted.replace(/-\d+$/, '')
  for (let n = 2; ; n++) {
    const id = `${stem}-${n}`
    if (!piece.parts.some((p) => p.id === id)) return id
  }
}

/** Lines of a new part, where they have lengths of their own. */
const FIRST_LINES = 12

/** Sections of lines in one bead, all in the repeat. */
const linesOfOne = (lengths: readonly number[], number: number) => ({
  start: raggedFrom([]),
  repeat: raggedFrom(lengths.map((length) => new Uint16Array(length).fill(number))),
  end: raggedFrom([]),
})

/**
 * Puts another part behind the last: a square of a stitch in the first bead of the tray, to be designed. A part of
 * plain cords is one round, repeated, in the first cord of the tray; a cord is put on the tray where it has none.
 */
export function addPartSteps(
  piece: Piece,
  name: string,
  technique: string,
  spec: string,
  habit: Settings = {},
): Step[] {
  const t = requireTechnique(technique)
  const settings = t.settings.parse(habitOf(technique, habit))
  const columns = t.growth.nearestColumns(10, settings)
  const material = t.material
  const own = piece.tray.find((b) => material.takes(b.spec))
  const fresh: TrayBead = {
    ...nextOnTray(piece.tray),
    ...material.first,
    spec: material.usualSpec,
    colour: '#6d8f5a',
  }
  const first = own ?? fresh
  // What runs through is one row, repeated.
  const rows = material.through ? 1 : 20 * t.growth.repeatRows
  const size = material.takes(spec) ? spec : first.spec
  const head = { id: freePartId(piece, 'part'), name, technique, settings, spec: size, on: null }
  if (t.picks) return addPickedSteps(piece, { ...head, ...(t.plan ? { plan: t.plan.parse({}) } : {}) })
  const work = { columns: 1, bead: requireSpec(size), settings }
  // What is bent to a size has as many lines as it asks for.
  const count = t.wire?.sizedTo ? Math.round(t.growth.rowsFor(0, work)) : FIRST_LINES
  const part: Part = t.firstLines
    ? filledPart(piece.tray, {
        ...head,
        times: 1,
        ...(t.plan ? { plan: t.plan.parse({}) } : {}),
        ...linesOfOne(t.firstLines(count, work), first.number),
      })
    : {
        ...head,
        times: material.through ? 40 : 1,
        start: emptyCells(columns, 0),
        repeat: emptyCells(columns, rows, first.number),
        end: emptyCells(columns, 0),
      }
  return [
    ...(own ? [] : [{ type: 'tray', do: 'insert', at: piece.tray.length, bead: fresh } as const]),
    { type: 'part', do: 'insert', at: piece.parts.length, value: partToFile(part) },
  ]
}

/** A part with its lines full, of work on wire; itself otherwise. */
function filledPart(tray: Piece['tray'], part: Part): Part {
  if (!requireTechnique(part.technique).wire?.full) return part
  const [own] = sized({ tray, parts: [part] }).parts as [Part]
  const { start, repeat, end, times } = fullLines(own)
  return { ...part, times, start: raggedOf(start), repeat: raggedOf(repeat), end: raggedOf(end) }
}

/** Motifs of a new part whose lines are picked up bead by bead. */
const FIRST_MOTIFS = 8

/** A new part that is laid as it is picked up, each bead in the size of its part; what the tray lacks comes to it. */
function addPickedSteps(
  piece: Piece,
  head: Pick<Part, 'id' | 'name' | 'technique' | 'settings' | 'spec' | 'on' | 'plan'>,
): Step[] {
  const t = requireTechnique(head.technique)
  const period = t.first?.period?.(head) ?? 1
  const count = FIRST_MOTIFS + 2 * period
  const { start, motif, end } = t.picks!(head, count)
  // A first or last motif that has more or less than the others is none of the repeat.
  const isAlike = (m: number, n: number): boolean =>
    motif(m)
      .map(({ key }) => key)
      .join() ===
    motif(n)
      .map(({ key }) => key)
      .join()
  const [opens, closes] = [isAlike(0, period) ? 0 : 1, isAlike(count - 1, count - 1 - period) ? 0 : 1]
  const blank = (count: number): Lines => raggedFrom(Array.from({ length: count }, () => []))
  const empty: Part = {
    ...head,
    times: Math.max(1, Math.round(FIRST_MOTIFS / period)),
    start: blank(opens + (start.length > 0 ? 1 : 0)),
    repeat: blank(period),
    end: blank(closes + (end.length > 0 ? 1 : 0)),
  }
  const lines = pickedAnew(piece, empty, head)!
  const [first, repeat, last] = [lines.start, lines.repeat, lines.end].map(raggedOf)
  const laid = { ...empty, times: lines.times, start: first!, repeat: repeat!, end: last! }
  // It is named by the bead that its first part is laid in.
  const [bead] = requireTechnique(head.technique).picks!(head, 1).motif(0)
  const part: Part = { ...laid, spec: bead?.spec ?? head.spec }
  return [
    ...trayAdded(piece, lines.added),
    { type: 'part', do: 'insert', at: piece.parts.length, value: partToFile(part) },
  ]
}

/** Takes a part off the piece; what hung on it hangs on nothing then. */
export function removePartSteps(piece: Piece, id: string): Step[] {
  const at = piece.parts.findIndex((p) => p.id === id)
  return at < 0 || piece.parts.length === 1
    ? []
    : [
        ...hangingOn(piece.parts, id).map((child) => setStep(piece, ['parts', child.id, 'on'], null)),
        { type: 'part', do: 'remove', at, value: partToFile(piece.parts[at]!) },
      ]
}

/** The lines of a section so many times over. */
const copied = (lines: Lines, times: number): Lines => {
  const once = linesOf(lines)
  return insertLines(removeLines(lines, 0, lines.rows), 0, Array.from({ length: times }, () => once).flat())
}

/** Writes the repeats of a part out as one: afterwards every row is its own, and the picture is the same. */
export function unrollSteps(piece: Piece, part: Part): Step[] {
  if (part.times <= 1) return []
  const { rows } = part.repeat
  // All further copies in one step: the repeat is taken as often as it is worked.
  const more = copyLinesStep(
    { ...part, repeat: copied(part.repeat, part.times - 1) },
    'repeat',
    rows,
    'repeat',
    0,
    rows * (part.times - 1),
  )
  return [...(rows > 0 ? [more] : []), setStep(piece, ['parts', part.id, 'times'], 1)]
}

/** A grid read from outside, row-major; `lengths` of its rows where these are lines of their own. */
interface GridRead {
  readonly columns: number
  readonly rows: number
  readonly numbers: readonly number[]
  readonly lengths?: readonly number[]
}

/** Its rows as lines of their own: as long as they say, or up to the last bead. */
const linesRead = ({ columns, rows, numbers, lengths }: GridRead): number[][] =>
  Array.from({ length: rows }, (_, r) => {
    const row = numbers.slice(keyOf(columns, 0, r), keyOf(columns, 0, r + 1))
    return row.slice(0, lengths?.[r] ?? row.findLastIndex((n) => n !== 0) + 1)
  })

/**
 * Steps that lay a grid read from outside in place of a part: as one section without repeats. The part gets a new id,
 * since all of it is new.
 */
export function replaceGridSteps(
  piece: Piece,
  part: Part,
  grid: GridRead,
  technique = part.technique,
  settings = part.settings,
  plan = part.plan,
): { steps: Step[]; readonly id: string } {
  const none = emptyCells(grid.columns, 0)
  const id = freePartId(piece, part.id)
  const kept = requireTechnique(technique)
  const { plan: _, ...head } = part
  const next: Part = {
    ...head,
    id,
    technique,
    settings,
    times: 1,
    ...(kept.plan ? { plan: plan ?? kept.plan.parse({}) } : {}),
    ...(kept.store === 'lines'
      ? { start: raggedFrom([]), repeat: raggedFrom(linesRead(grid)), end: raggedFrom([]) }
      : { start: none, repeat: cellsFrom(grid.columns, grid.rows, grid.numbers), end: none }),
  }
  return { id, steps: exchangeSteps(piece, part, next) }
}
