import type { z } from 'zod'
import { requireSpec, type BeadSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { judged } from '../../layout/judge'
import type { Laid } from '../../layout/laid'
import { bridgeByTouch } from '../../recipe/measure'
import { RECIPE_LIMITS, type Recipe } from '../../recipe/language'
import type { RowProgram } from '../../recipe/rows'
import { unitsOf, type Run } from '../../recipe/run'
import { envOf, recipeTotals } from '../../recipe/total'
import { problem } from '../../problem'
import type { CarrierId } from '../act'
import type { Carrier, PlacedBead } from '../drawing'
import { BEADS } from '../material'
import { laidRow } from '../laid-row'
import { rowWork, type RowLayout, type RowWork } from '../row-work'
import type { PickedBead } from '../picked'
import type { Script } from '../script'
import type { Workplace } from '../workplace'
import type { Strung } from '../strung'
import {
  lengthOfRow,
  meeting,
  rangeOf,
  unjoined,
  type Finding,
  type Plan,
  type ThreadRun,
  type Work,
} from '../technique'
import { tenths } from '../carrier/line'
import {
  BOARD_COUNT,
  endsMeet,
  laidFor,
  questionsFor,
  recipeWork,
  sizeFor,
  toldFor,
  USUAL_COUNT,
  type RecipePlan,
  type Sizes,
} from './told'

/**
 * Work by a recipe: a line is what a motif picks up, in the order of picking; what the start and the end pick up is a
 * line of its own, where they pick up anything. Counts, passes, ways and words come from the recipe, its picture and
 * size from the topology of its thread (core/layout). The beads that lie in a slot give it its size.
 */
export interface Chain extends Pick<RowWork, 'id' | 'name' | 'summary' | 'settings' | 'fields'> {
  readonly plan: RowWork['plan']
  readonly kinds: NonNullable<RowWork['kinds']>
  readonly closure?: RowWork['closure']
  readonly making?: RowWork['making']
  readonly script?: Script
  planKey?: RowWork['planKey']
  /** Tools that its findings ask for, by their names in the recipe. */
  readonly tools?: Readonly<Record<string, string>>
  /** Settings that may be changed by one to fit. */
  readonly tunes?: RowWork['tunes']
  /** Settings with which its ends meet. */
  readonly meets?: RowWork['meets']
  /** What a motif of it is called: “flower”. */
  readonly motif?: string
  /** What a piece of it is called where nothing else names it. */
  readonly thing?: string
  /** The recipe with the values of its fields; equal for equal plans and settings. */
  planOf(work: Pick<Work, 'plan' | 'settings'>): RecipePlan
  /** Length of a motif as it was measured, mm; 0 if nobody did. */
  measured?(settings: Work['settings']): number
}

/** Until a chain is measured, its length may be so far off (common practice for chains). */
const SPREAD = 0.1
/** Part of the way through its beads that a motif is long, where it is too much to be laid; how far off that is. */
const SHARE = 0.6
const STRUNG_SPREAD = 0.4
const LEAST_MM = 0.1
/** Room between two lines that are drawn as they are strung, mm. */
const GAP_MM = 0.6
const THREAD_MM = 0.25
/** Motifs in which the bead of a slot is looked for. */
const LOOKED_AT = 8

type Basis = Omit<Work, 'rows'>

/** Whether start and end have lines of their own: told by a short run, whatever stands between them. */
function edgesOf(plan: RecipePlan): { readonly start: number; readonly end: number } {
  const { starts, ends } = toldFor(plan, 2)
  return { start: starts ? 1 : 0, end: ends ? 1 : 0 }
}

/** Motifs of so many lines. */
function motifsIn(plan: RecipePlan, rows: number): number {
  const { start, end } = edgesOf(plan)
  return Math.max(0, rows - start - end)
}

const holesOf = ({ spacing }: BeadSpec): number => (spacing === undefined ? 1 : 2)

/** Beads of slots as they lie, each slot in the one that plays it most. */
function laidSizes(recipe: Recipe, found: Iterable<readonly [slot: string, bead: BeadSpec]>): Sizes {
  const counts = new Map<string, Map<string, number>>()
  for (const [slot, bead] of found) {
    // A bead with more or fewer holes cannot play the part: that is a finding, not a size.
    if (holesOf(bead) !== holesOf(requireSpec(recipe.slots[slot]!.spec))) continue
    let own = counts.get(slot)
    if (!own) counts.set(slot, (own = new Map()))
    own.set(bead.id, (own.get(bead.id) ?? 0) + 1)
  }
  const out: Record<string, string> = {}
  for (const [slot, own] of counts) {
    const [most] = [...own].sort((a, b) => b[1] - a[1])
    if (most && most[0] !== recipe.slots[slot]!.spec) out[slot] = most[0]
  }
  return out
}

const RUN_IDS: Readonly<Record<Recipe['carriers'][number]['kind'], CarrierId>> = {
  thread: 'thread',
  wire: 'wire',
  cord: 'cord',
  pin: 'wire',
  elastic: 'cord',
}

/** What is laid out for each kind of carrier (common practice). */
const THREAD_TOOLS = ['Beading needle', 'Scissors', 'Wax or conditioner']
const WIRE_TOOLS = ['Wire cutters', 'Chain-nose pliers', 'File', 'Eye protection']
const TOOLS: Readonly<Record<Recipe['carriers'][number]['kind'], readonly string[]>> = {
  thread: THREAD_TOOLS,
  wire: WIRE_TOOLS,
  cord: ['Scissors'],
  pin: WIRE_TOOLS,
  elastic: ['Scissors'],
}

/** Technique that keeps the recipe of any chain once it is changed. */
const KEPT_BY = 'own-recipe'

/** Faults of recipes that go on and on: they are refused; others are findings. */
const BEYOND: ReadonlySet<string> = new Set(['too-long', 'too-many', 'too-many-turns'])

export function chain(own: Chain): Strung {
  const { planOf } = own
  const motifName = own.motif ?? 'motif'

  const shapes = new WeakMap<object, Sizes>()
  /** Sizes of the slots as beads lie in them; as the recipe has them where none does. */
  function sizesOf(work: Basis & { readonly rows?: number }): Sizes {
    const plan = planOf(work)
    const { recipe } = plan
    const known = work.shape ? shapes.get(work.shape) : undefined
    if (known) return known
    const found: [string, BeadSpec][] = []
    if (work.beadAt && work.rows !== undefined && work.rows > 0) {
      const n = motifsIn(plan, work.rows)
      const { run, starts } = toldFor(plan, n)
      for (const { isFixture, slot, motif, place } of run.nodes) {
        if (isFixture || (motif >= LOOKED_AT && motif < n)) continue
        const r = motif + (starts ? 1 : 0)
        if (r < work.rows && place < lengthOfRow(work, r)) found.push([slot, work.beadAt(place, r)])
      }
    } else if (work.usual) {
      for (const { isFixture, slot, motif, place } of toldFor(plan, 3).run.nodes)
        if (!isFixture && motif === 1 && work.usual[place]) found.push([slot, work.usual[place]])
    } else {
      const [first] = Object.keys(recipe.slots)
      if (first) found.push([first, work.bead])
    }
    const sizes = laidSizes(recipe, found)
    if (work.shape) shapes.set(work.shape, sizes)
    return sizes
  }

  function program(work: Work): RowProgram {
    const plan = planOf(work)
    const { recipe, params } = plan
    const sizes = sizesOf(work)
    const n = motifsIn(plan, work.rows)
    const { start } = edgesOf(plan)
    return {
      head: { ...recipe, unit: motifName },
      units: { [Symbol.iterator]: () => unitsOf(recipe, n) },
      env: envOf(recipe, params, n),
      spec: recipeWork(plan, sizes).spec,
      lineOf: (motif) => motif + start,
      placeOf: ({ place }) => place,
      run: { ...toldFor(plan, n, sizes).run, head: { ...recipe, unit: motifName } },
    }
  }

  const strungMm = (beads: readonly BeadSpec[]): number => SHARE * beads.reduce((sum, { l }) => sum + l, 0)

  /** Length that a motif brings, mm: as it was measured, as it is laid, or its share of the way through its beads. */
  function pitchMm(work: Basis): number {
    const measured = own.measured?.(work.settings) ?? 0
    if (measured > 0) return measured
    const plan = planOf(work)
    const sizes = sizesOf(work)
    const laid = sizeFor(plan, USUAL_COUNT, sizes)
    return Math.max(LEAST_MM, laid?.pitchMm ?? strungMm(toldFor(plan, 3, sizes).beads.get(1) ?? []))
  }

  /** Length of so many lines, mm. */
  function lengthMm(rows: number, work: Basis): number {
    const plan = planOf(work)
    const n = motifsIn(plan, rows)
    if (rows === 0) return 0
    const sizes = sizesOf(work)
    const laid = sizeFor(plan, n, sizes)
    const pitch = pitchMm(work)
    // Lines of the start and the end alone are as much of the ends as there are of them.
    if (laid && n > 0) return laid.lengthMm + n * (pitch - laid.pitchMm)
    if (laid) return (laid.lengthMm * rows) / (edgesOf(plan).start + edgesOf(plan).end + 1)
    const { beads } = toldFor(plan, 2, sizes)
    return strungMm(beads.get(-1) ?? []) + strungMm(beads.get(2) ?? []) + n * pitch
  }

  function layout(work: Work, _rows: readonly unknown[], told: () => Run): RowLayout {
    const run = told()
    const plan = planOf(work)
    const n = motifsIn(plan, work.rows)
    const { start } = edgesOf(plan)
    const laid = laidFor(plan, n, sizesOf(work))
    return laid && Number.isFinite(laid.left) ? laidOut(work, run, laid, start) : strungOut(work, run, start)
  }

  function laidOut(work: Work, run: Run, laid: Laid, start: number): RowLayout {
    const there = new Set<number>()
    const layout = laidRow(run, laid, ({ motif, place }) => {
      const r = motif + start
      if (r >= work.rows || place >= lengthOfRow(work, r)) return null
      const key = keyOf(work.columns, place, r)
      there.add(key)
      return key
    })
    const { left, right, top, bottom } = laid
    const placed = [...layout.placed]
    // What lies in a line beyond what is strung lies beside it, so that it is seen.
    for (let r = 0; r < work.rows; r++) {
      let x = bottom - top + work.bead.d
      for (let c = 0; c < lengthOfRow(work, r); c++) {
        const key = keyOf(work.columns, c, r)
        if (there.has(key)) continue
        const bead = work.beadAt?.(c, r) ?? work.bead
        const y = Math.min(right - left, Math.max(0, (r - start + 0.5) * laid.pitchMm))
        placed.push({ key, x: x + bead.l / 2, y, turnDegrees: 0, bead })
        x += bead.l
      }
    }
    return { ...layout, placed }
  }

  /** Each line as it is strung, one below the other: of work that is too much to be laid. */
  function strungOut(work: Work, run: Run, start: number): RowLayout {
    const placed: PlacedBead[] = []
    const carriers: Carrier[] = []
    const byLine = new Map<number, BeadSpec[]>()
    for (const { isFixture, spec, motif } of run.nodes) {
      if (isFixture || !spec) continue
      const list = byLine.get(motif + start)
      if (list) list.push(spec)
      else byLine.set(motif + start, [spec])
    }
    let y = 0
    let widthMm = 1
    for (let r = 0; r < work.rows; r++) {
      const known = byLine.get(r) ?? []
      const beads = Array.from({ length: lengthOfRow(work, r) }, (_, c) => known[c] ?? known.at(-1) ?? work.bead)
      const high = beads.reduce((most, { d }) => Math.max(most, d), 0)
      const middle = y + high / 2
      let x = 0
      beads.forEach((bead, c) => {
        placed.push({ key: keyOf(work.columns, c, r), x: x + bead.l / 2, y: middle, turnDegrees: 0, bead })
        x += bead.l
      })
      if (beads.length > 0)
        carriers.push({
          kind: 'thread',
          thickMm: THREAD_MM,
          points: [
            { x: 0, y: middle },
            { x, y: middle },
          ],
        })
      widthMm = Math.max(widthMm, x)
      y += high + (high > 0 ? GAP_MM : 0)
    }
    return { placed, carriers, widthMm, lengthMm: Math.max(1, y) }
  }

  function runs(work: Work, ways: ReadonlyMap<string, number>): ThreadRun[] {
    const plan = planOf(work)
    const { carriers, cut } = plan.recipe
    const n = motifsIn(plan, work.rows)
    const many = cut.each === 'motif' ? Math.max(1, n) : 1
    const run = (id: CarrierId, name: string, mm: number, formula: string): ThreadRun => ({
      ...{ id, name, count: many, joined: id === 'thread', lengthMm: mm / many },
      formula: many > 1 ? `${formula}, in ${many} lengths` : formula,
    })
    const wayOf = (id: string): number => ways.get(id) ?? 0
    if (cut.folded && carriers.length > 1) {
      const sum = carriers.reduce((mm, { id }) => mm + wayOf(id), 0)
      const { kind } = carriers[0]!
      const formula = carriers.map(({ id, name }) => `${name} ${tenths(wayOf(id))} mm`).join(' + ')
      return [run(RUN_IDS[kind], `${carriers.map((c) => c.name).join(' and ')}, folded`, sum, formula)]
    }
    return carriers.map(({ id, name, kind }) =>
      run(RUN_IDS[kind], name.charAt(0).toUpperCase() + name.slice(1), wayOf(id), `${tenths(wayOf(id))} mm`),
    )
  }

  /** Findings that carriers go through, by number and size, and what all of it is worked with. */
  function workplace(work: Work): Workplace {
    const plan = planOf(work)
    const { recipe } = plan
    const counts = new Map<string, number>()
    for (const { isFixture, slot } of toldFor(plan, motifsIn(plan, work.rows)).run.nodes)
      if (isFixture) counts.set(slot, (counts.get(slot) ?? 0) + 1)
    const tools = recipe.carriers.flatMap(({ kind }) => TOOLS[kind])
    return {
      tools: [...new Set([...tools, ...[...counts.keys()].flatMap((slot) => own.tools?.[slot] ?? [])])],
      needs: [...counts].map(([slot, count]) => {
        const { name, d } = recipe.fixtures[slot]!
        return { name: `${name.charAt(0).toUpperCase()}${name.slice(1)}, ${tenths(d)} mm`, count, says: '' }
      }),
      ready: [],
      glued: false,
    }
  }

  function findings(work: Work): Finding[] {
    const plan = planOf(work)
    const n = motifsIn(plan, work.rows)
    const sizes = sizesOf(work)
    const { lengths, run, starts } = toldFor(plan, n, sizes)
    const out: Finding[] = []
    const odd = lengths.flatMap((wanted, r) => {
      const there = work.lineLength?.(r) ?? work.columns
      return there === wanted ? [] : [{ r, there, wanted }]
    })
    const [first] = odd
    if (first)
      out.push({
        code: 'line-length',
        weight: 'stops',
        lines: odd.map(({ r }) => r),
        says:
          `Line ${first.r + 1} holds ${first.there} beads, and the recipe picks up ${first.wanted} there` +
          `${odd.length > 1 ? `, and ${odd.length - 1} more lines differ` : ''}: lay as many as it picks up.`,
      })
    out.push(...otherSizes(work, plan, sizes, starts ? 1 : 0, run))
    const laid = laidFor(plan, n, sizes)
    if (laid && laid.acrossMm === undefined)
      for (const { code, says, motifs } of judged(run, laid)) {
        const lines = motifs.map((motif) => motif + (starts ? 1 : 0)).filter((r) => r < work.rows)
        out.push({ code, says, weight: 'looks', lines })
      }
    return out
  }

  /** Beads that are not of the size of their slot: its places follow from one. */
  function otherSizes(work: Work, plan: RecipePlan, sizes: Sizes, start: number, run: Run): Finding[] {
    const { recipe } = plan
    const found = new Map<string, { count: number; r: number; bead: BeadSpec }>()
    if (!work.beadAt) return []
    for (const { isFixture, slot, motif, place } of run.nodes) {
      const r = motif + start
      if (isFixture || r >= work.rows || place >= lengthOfRow(work, r)) continue
      const bead = work.beadAt(place, r)
      if (bead.id === (sizes[slot] ?? recipe.slots[slot]!.spec)) continue
      const known = found.get(slot)
      if (known) known.count++
      else found.set(slot, { count: 1, r, bead })
    }
    return [...found].map(([slot, { count, r, bead }]): Finding => {
      const { name, many, spec } = recipe.slots[slot]!
      const wanted = requireSpec(sizes[slot] ?? spec)
      return {
        code: 'slot-size',
        weight: 'stops',
        lines: [r],
        says:
          `${count} ${count === 1 ? name : many} ${count === 1 ? 'is' : 'are'} another bead than the others, first ` +
          `in line ${r + 1}: ${bead.name} among ${wanted.name}. One part is played in one size: lay ${wanted.name}.`,
      }
    })
  }

  const work: RowWork = {
    id: own.id,
    name: own.name,
    summary: own.summary,
    settings: own.settings,
    fields: own.fields,
    plan: own.plan,
    kinds: own.kinds,
    ...(own.script ? { script: own.script } : {}),
    ...(own.planKey ? { planKey: own.planKey } : {}),
    recipe: {
      of: (basis) => {
        const { recipe, params } = planOf(basis)
        return { recipe, params }
      },
      keptBy: KEPT_BY,
      plan: ({ recipe, params }) => ({ recipe, params }) as unknown as Plan,
      board(full) {
        const plan = planOf(full)
        const { recipe, params } = plan
        const sizes = sizesOf(full)
        return {
          ...{ recipe, params, motifs: BOARD_COUNT },
          run: { ...toldFor(plan, BOARD_COUNT, sizes).run, head: { ...recipe, unit: motifName } },
          laid: laidFor(plan, BOARD_COUNT, sizes),
        }
      },
    },
    ...(own.closure ? { closure: own.closure } : {}),
    ...(own.making ? { making: own.making } : {}),
    ...(own.tunes ? { tunes: own.tunes } : {}),
    ...(own.meets ? { meets: own.meets } : {}),
    workplace,
    material: { ...BEADS, usualSpec: Object.values(usualPlan(own).recipe.slots)[0]!.spec },
    first: {
      sizes: Object.values(usualPlan(own).recipe.slots)
        .slice(1)
        .map(({ spec }) => spec),
      period: (basis) => periodOf(planOf(basis)),
      parts(r, count, basis) {
        const plan = planOf(basis)
        const { run, starts } = toldFor(plan, motifsIn(plan, count))
        const names = Object.keys(plan.recipe.slots)
        return run.nodes
          .filter(({ isFixture, motif }) => !isFixture && motif === r - (starts ? 1 : 0))
          .map(({ slot }) => names.indexOf(slot))
      },
    },
    words: {
      line: 'line',
      place: 'bead',
      across: 'in the longest line',
      acrossTitle: 'Longest line',
      thing: own.thing ?? 'Chain',
      sample: {
        name: 'sample',
        how: `Lay a rule along the work and count ${motifName}s in its middle.`,
        counted: `${motifName.charAt(0).toUpperCase()}${motifName.slice(1)}s counted`,
        where: `In the middle, from ${motifName} to ${motifName}.`,
        wide: false,
      },
    },
    program,
    layout,
    // Ends that meet, and what is too much to be laid, touch.
    bridge(from, to, nodes, far) {
      return far ? bridgeByTouch(from, to, nodes) : null
    },
    extent(full) {
      const plan = planOf(full)
      const n = motifsIn(plan, full.rows)
      const mm = lengthMm(full.rows, full)
      const size = n > 0 ? sizeFor(plan, n, sizesOf(full)) : null
      const measured = own.measured?.(full.settings) ?? 0
      const spread = measured > 0 || size ? SPREAD : STRUNG_SPREAD
      const pitch = pitchMm(full)
      const widthMm = size?.widthMm ?? full.bead.d * 2
      const ends = endsMeet(plan) ? 'what closes the ring' : 'the ends'
      const how =
        measured > 0
          ? ' as you measured'
          : size
            ? ''
            : ` (${SHARE} × the way through their beads, until one is measured)`
      return {
        lengthMm: rangeOf(mm, spread),
        widthMm: rangeOf(widthMm, size ? SPREAD : STRUNG_SPREAD),
        thicknessMm: thickest(plan, sizesOf(full)),
        basis: { kind: 'nominal', spread },
        lengthFormula: `${n} ${motifName}s × ${tenths(pitch)} mm${how} and ${ends}: ${tenths(mm)} mm`,
        widthFormula: size ? `as it is laid: ${tenths(widthMm)} mm` : 'two beads, until it is measured',
      }
    },
    join(full) {
      if (endsMeet(planOf(full)))
        return meeting('The last steps work its end on to its beginning: the ring closes as they are done.')
      return unjoined(
        own.meets
          ? 'As it is set, its ends stay open: choose that they meet under “Made how”.'
          : 'Its recipe leaves the ends open: lead the thread of its end through the first motif.',
      )
    },
    lengthOf: (full) => lengthMm(full.rows, full),
    rowsFor(wanted, basis) {
      const plan = planOf(basis)
      const { start, end } = edgesOf(plan)
      // So many motifs with their ends, and as many more or fewer as the pitch says.
      const rows = start + end + USUAL_COUNT
      return Math.max(0, (wanted - lengthMm(rows, basis)) / pitchMm(basis) + rows)
    },
    firstLines: (count, basis) => {
      const plan = planOf(basis)
      return [...toldFor(plan, motifsIn(plan, count)).lengths].slice(0, count)
    },
    picks(of, motifs) {
      const plan = planOf(of)
      const { recipe } = plan
      const lines = new Map<number, PickedBead[]>()
      for (const { isFixture, motif, slot, name, at } of toldFor(plan, motifs).run.nodes) {
        if (isFixture) continue
        const { name: called, spec } = recipe.slots[slot]!
        const bead = { slot, called, spec, key: `${name}/${at}` }
        const line = lines.get(motif)
        if (line) line.push(bead)
        else lines.set(motif, [bead])
      }
      const lineOf = (motif: number): readonly PickedBead[] => lines.get(motif) ?? []
      return { start: lineOf(-1), motif: lineOf, end: lineOf(motifs) }
    },
    awaits(full) {
      const plan = planOf(full)
      return questionsFor(plan, motifsIn(plan, full.rows), sizesOf(full))
    },
    runs,
    findings,
    check(full) {
      const plan = planOf(full)
      const n = motifsIn(plan, full.rows)
      // Motifs that are alike are multiplied, so that too many of them are refused before they are run.
      const { totals, run } = recipeTotals(recipeWork(plan), n, bridgeByTouch)
      const beyond = run.faults.filter(({ code }) => BEYOND.has(code))
      if (beyond.length > 0) return beyond.slice(0, 3)
      return totals.steps > RECIPE_LIMITS.runSteps || totals.beads > RECIPE_LIMITS.runBeads
        ? [
            problem(
              'too-long',
              'recipe',
              `${n} motifs are ${totals.steps} steps and ${totals.beads} beads: at most ${RECIPE_LIMITS.runSteps} ` +
                `and ${RECIPE_LIMITS.runBeads} can be told. Make fewer motifs, or two parts.`,
            ),
          ]
        : []
    },
  }
  return rowWork(work)
}

const usualPlan = ({ planOf, settings }: Chain): RecipePlan =>
  planOf({ settings: (settings as z.ZodType<Work['settings']>).parse({}) })

/** Motifs after which the same parts are played in the same order. */
export function periodOf(plan: RecipePlan): number {
  const { run } = toldFor(plan, PERIOD_RUN)
  const texts: string[] = Array.from({ length: PERIOD_RUN }, () => '')
  for (const { motif, isFixture, name, slot } of run.nodes)
    if (!isFixture && motif >= 0 && motif < PERIOD_RUN) texts[motif] += `${slot}/${name} `
  for (let period = 1; period <= MOST_PERIOD; period++)
    if (texts.every((text, m) => m < 2 || m + period >= PERIOD_RUN - 1 || texts[m + period] === text)) return period
  return 1
}
const PERIOD_RUN = 27
const MOST_PERIOD = 12

const thickest = (plan: RecipePlan, sizes: Sizes): number =>
  Object.keys(plan.recipe.slots).reduce((most, slot) => {
    const { d, thick } = recipeWork(plan, sizes).spec(slot)
    return Math.max(most, thick ?? d)
  }, 0)
