import type { BeadSpec } from '../bead/spec'
import type { Env } from './expression'
import type { Item, Recipe, Step } from './language'
import { runSteps, type Node, type RecipeHead, type Run, type Unit } from './run'

/**
 * Row work: rows of beads, each a list of its own, and a scheme that says how the carrier goes through a row and on to
 * the next. A scheme compiles the lists to steps of the one language, so counts, passes, lengths, words and states
 * come from the one interpreter; only where the rows lie is given by formulas.
 */
export type Row = readonly BeadSpec[]

/** Rows compiled to steps, and which place of its row each bead has that they pick up. */
export interface RowProgram {
  readonly head: RecipeHead
  readonly units: Iterable<Unit>
  spec(slot: string): BeadSpec
  /** Values that the steps reckon with; none if left out. */
  readonly env?: Env
  /** Which line a motif is; its own number if left out. */
  lineOf?(motif: number): number
  placeOf(node: Node): number
  /** Whether a bead is strung against the order of the places of its row. */
  isTurned?(node: Node): boolean
  /** What carrying it out comes to, where that is known already. */
  readonly run?: Run
}

/** Carries a program out. */
export const runRows = ({ head, units, spec, env = new Map(), run }: RowProgram): Run =>
  run ?? runSteps({ head, units, env, spec })

type Carriers = Recipe['carriers']

/** How rows are compiled: a slot for each size, in the order in which sizes come. */
export function sizesIn(rows: readonly Row[]) {
  const specs = new Map<string, BeadSpec>()
  const slotOf = new Map<string, string>()
  for (const row of rows)
    for (const bead of row)
      if (!slotOf.has(bead.id)) {
        const slot = `s${slotOf.size}`
        slotOf.set(bead.id, slot)
        specs.set(slot, bead)
      }
  return {
    slots: Object.fromEntries([...specs].map(([slot, { id }]) => [slot, { name: 'bead', many: 'beads', spec: id }])),
    spec: (slot: string) => specs.get(slot)!,
    /** Beads in the order given, as items: those of one size that follow each other are one. */
    items(row: Row, as: string): Item[] {
      const items: { slot: string; as: string; hole: 'a'; count: number }[] = []
      for (const bead of row) {
        const slot = slotOf.get(bead.id)!
        const last = items.at(-1)
        if (last?.slot === slot) last.count++
        else items.push({ slot, as, hole: 'a', count: 1 })
      }
      return items
    },
  }
}

/** Steps without those that do nothing. */
export const only = (...steps: (Step | null)[]): Step[] => steps.filter((step) => step !== null)

export const pick = (items: Item[], by?: string, note?: string): Step | null =>
  items.length === 0 ? null : { do: 'pick', items, ...(by ? { by } : {}), ...(note ? { note } : {}) }

const through = (
  bead: string,
  count: number,
  { by, back = false, prev = false, note }: { by?: string; back?: boolean; prev?: boolean; note?: string } = {},
): Step | null =>
  count === 0
    ? null
    : {
        do: 'pass',
        refs: [
          {
            ...{ bead, of: prev ? ('prev' as const) : ('this' as const), hole: 'a' as const },
            ...(back ? { at: -1, to: 0, way: 'back' as const } : { at: 0, to: -1, way: 'on' as const }),
          },
        ],
        ...(by ? { by } : {}),
        ...(note ? { note } : {}),
      }

// ---- crossed: rungs with beads at their sides

/** A row of a ladder: beads at its sides, its rung, and what leads from there to a clasp at the end of the work. */
export interface Rung<B = BeadSpec> {
  readonly down: readonly B[]
  readonly up: readonly B[]
  readonly rung: readonly B[]
  readonly tailDown: readonly B[]
  readonly tailUp: readonly B[]
}

/** Names under which the beads of a row are remembered, in the order in which its list has them. */
const RUNG_PARTS = ['down', 'up', 'rung', 'tailDown', 'tailUp'] as const

/** So many of a list in two halves, the first the larger. */
const halves = (count: number): [number, number] => [Math.ceil(count / 2), Math.floor(count / 2)]

/**
 * What a row of a ladder is: so many beads at each side, the rest in the rung, and so many at each side that lead away
 * behind it. Where there are fewer, the sides come first, and share what there is; then what leads away.
 */
export function rungOf<B>(row: readonly B[], side: number, tail = 0): Rung<B> {
  const [down, up] = row.length >= 2 * side ? [side, side] : halves(row.length)
  const rest = row.length - down - up
  const [tailDown, tailUp] = rest >= 2 * tail ? [tail, tail] : halves(rest)
  const counts = [down, up, rest - tailDown - tailUp, tailDown, tailUp]
  let from = 0
  const lists = counts.map((count) => row.slice(from, (from += count)))
  return Object.fromEntries(RUNG_PARTS.map((name, k) => [name, lists[k]!])) as unknown as Rung<B>
}

const NEEDLES: Carriers = [
  { id: 'left', name: 'left needle', kind: 'thread', mm: 0.15 },
  { id: 'right', name: 'right needle', kind: 'thread', mm: 0.15 },
]
const NEEDLE: Carriers = [{ id: 'thread', name: 'needle', kind: 'thread', mm: 0.15 }]

interface Ladder {
  /** Worked with two needles that cross in every rung, or with one that goes round each step. */
  readonly needles: 1 | 2
  readonly fixtures: Recipe['fixtures']
  /** Fixture that both sides begin and end at. */
  readonly end: string
}

/** Rungs whose sides are strung between them; begins and ends at a clasp. */
export function crossed(rungs: readonly Rung[], ladder: Ladder): RowProgram {
  const { slots, spec, items } = sizesIn(rungs.flatMap((own) => RUNG_PARTS.map((name) => own[name])))
  const two = ladder.needles === 2
  const fix = (by?: string): Step => ({ do: 'fix', fixture: ladder.end, ...(by ? { by } : {}) })
  const isLast = (motif: number): boolean => motif === rungs.length - 1
  const units: Unit[] = []
  let [above, below] = ['left', 'right']
  rungs.forEach((own, motif) => {
    const steps = two
      ? only(
          motif === 0 ? fix(above) : null,
          motif === 0 ? fix(below) : null,
          pick(items(own.down, 'down'), below),
          pick(items(own.up, 'up'), above),
          pick(items(own.rung, 'rung'), above),
          through('rung', own.rung.length, { by: below, back: true, note: 'draw both tight' }),
        )
      : roundStep(own, motif, rungs[motif - 1]?.rung.length ?? 0, items, fix)
    // After each crossing the needles have changed sides.
    if (two && own.rung.length > 0) [above, below] = [below, above]
    if (isLast(motif))
      steps.push(
        ...(two
          ? only(
              pick(items(own.tailDown, 'tailDown'), below),
              pick(items(own.tailUp, 'tailUp'), above),
              fix(above),
              fix(below),
            )
          : tailSteps(own, motif, items, fix)),
      )
    units.push({ section: 'motif', motif, steps })
  })
  const isTurned = ({ name, motif }: Node): boolean => {
    if (two) return false
    const fromBelow = isFromBelow(motif)
    if (name === 'rung') return fromBelow
    return fromBelow === (name === 'up' || name === 'tailDown')
  }
  return {
    head: {
      slots,
      unit: 'rung',
      carriers: two ? NEEDLES : NEEDLE,
      fixtures: ladder.fixtures,
      cut: { folded: two, each: 'piece' },
    },
    units,
    spec,
    isTurned,
    placeOf(node) {
      const own = rungs[node.motif]!
      let from = 0
      for (const name of RUNG_PARTS) {
        if (name === node.name) return from + (isTurned(node) ? own[name].length - 1 - node.at : node.at)
        from += own[name].length
      }
      return from
    },
  }
}

/** With one needle every second row begins at the far end, where the one before left off. */
const isFromBelow = (motif: number): boolean => motif % 2 === 1

type Items = (row: Row, as: string) => Item[]

/** A step of a ladder with one needle: along its first side, through the rung, back along the second, and on. */
function roundStep(own: Rung, motif: number, rungBefore: number, items: Items, fix: () => Step): Step[] {
  const below = isFromBelow(motif)
  const [first, second] = below ? (['down', 'up'] as const) : (['up', 'down'] as const)
  return only(
    motif === 0 ? fix() : null,
    pick(items(own[first], first)),
    pick(items(below ? own.rung.toReversed() : own.rung, 'rung')),
    pick(items(own[second].toReversed(), second)),
    motif === 0 ? fix() : null,
    through('rung', rungBefore, { prev: true }),
    through(first, own[first].length),
    through('rung', own.rung.length),
  )
}

/** With one needle to the clasp and back along the other lead, once more through the last rung, and to the clasp. */
function tailSteps(own: Rung, motif: number, items: Items, fix: () => Step): Step[] {
  const [first, second] = isFromBelow(motif) ? (['tailUp', 'tailDown'] as const) : (['tailDown', 'tailUp'] as const)
  return only(
    pick(items(own[first], first)),
    fix(),
    pick(items(own[second].toReversed(), second)),
    through('rung', own.rung.length),
    through(first, own[first].length),
    fix(),
  )
}

// ---- wrapped: rows stitched between two cords

interface Cords {
  readonly cordMm: number
  /** Turns that bind the thread to a cord at both ends. */
  readonly bindTurns: number
}

/** The wire or thread of a row goes out, round the far cord, back through the same beads and round the near cord. */
export function wrapped(rows: readonly Row[], { cordMm, bindTurns }: Cords): RowProgram {
  const { slots, spec, items } = sizesIn(rows)
  const cord = (name: string) => ({ name, d: cordMm, holes: 1, pitch: 0 })
  const round = (fixture: string, turns: number, note?: string): Step => ({
    ...{ do: 'wrap', fixture, turns },
    ...(note ? { note } : {}),
  })
  const units = rows.map((row, motif): Unit => {
    const tiles = row.flatMap((bead, at) => (bead.spacing === undefined ? [] : [at]))
    const second = (way: 'on' | 'back'): Step => ({
      do: 'pass',
      refs: (way === 'on' ? tiles : tiles.toReversed()).map((at) => ({ bead: 'row', of: 'this', at, hole: 'b', way })),
    })
    return {
      section: 'motif',
      motif,
      steps: only(
        pick(items(row, 'row'), undefined, 'under both cords, up between them'),
        row.length > 0 ? round('far', 0.5) : null,
        through('row', row.length, { back: true, note: 'above the cords' }),
        row.length > 0 ? round('near', 0.5) : null,
        // A bead with two holes is a row twice: a turn round the cord leads to its second hole.
        ...(tiles.length > 0
          ? [
              round('near', 1, 'on to the second holes'),
              second('on'),
              round('far', 0.5),
              second('back'),
              round('near', 0.5),
            ]
          : []),
      ),
    }
  })
  const bind = (section: 'start' | 'end', motif: number): Unit => ({
    section,
    motif,
    steps: bindTurns > 0 ? [round('near', bindTurns, 'bind the thread to the cord')] : [],
  })
  return {
    head: {
      slots,
      unit: 'row',
      carriers: [{ id: 'thread', name: 'thread', kind: 'thread', mm: 0.15 }],
      fixtures: { near: cord('near cord'), far: cord('far cord') },
      cut: { folded: false, each: 'piece' },
    },
    units: [bind('start', -1), ...units, bind('end', rows.length)],
    spec,
    placeOf: ({ at }) => at,
  }
}

// ---- pinned: each row on a pin of its own

/** Rows on pins, from head to foot; every other one turned about, where heads and feet alternate. */
export function pinned(rows: readonly Row[], { alternating }: { readonly alternating: boolean }): RowProgram {
  const { slots, spec, items } = sizesIn(rows)
  const isTurned = (motif: number): boolean => alternating && motif % 2 === 1
  return {
    head: {
      slots,
      unit: 'pin',
      carriers: [{ id: 'pin', name: 'pin', kind: 'pin', mm: 0.7 }],
      fixtures: {},
      cut: { folded: false, each: 'motif' },
    },
    units: rows.map((row, motif) => ({
      section: 'motif',
      motif,
      steps: only(
        pick(
          items(isTurned(motif) ? row.toReversed() : row, 'row'),
          undefined,
          isTurned(motif) ? 'turned about: its head lies at the other side' : undefined,
        ),
      ),
    })),
    spec,
    isTurned: ({ motif }) => isTurned(motif),
    placeOf: ({ at, motif }) => (isTurned(motif) ? rows[motif]!.length - 1 - at : at),
  }
}

// ---- ribbed: columns on a wire that is wound on a cuff

interface Cuff {
  readonly wireMm: number
  /** Width and thickness of the cuff that the wire goes round. */
  readonly widthMm: number
  readonly thickMm: number
  /** Bare turns between one rib and the next, and at both ends. */
  readonly turns: number
  readonly endTurns: number
  /** Beads with two holes are shared: up through the first in one rib, down through the second in the next. */
  readonly shared: boolean
}

/** Whether a rib goes back through the second holes of beads that the one before brought. */
const isBack = (rows: readonly Row[], i: number, shared: boolean): boolean =>
  shared && i % 2 === 1 && rows[i - 1]!.some((bead) => bead.spacing !== undefined)

/**
 * Columns of beads across a cuff. Where beads are shared, a rib goes up and the next one down through their second
 * holes: its own beads stand between them in as many groups, as those of the first do.
 */
export function ribbed(rows: readonly Row[], cuff: Cuff): RowProgram {
  const { slots, spec, items } = sizesIn(rows)
  const wind = (turns: number): Step | null => (turns > 0 ? { do: 'wrap', fixture: 'cuff', turns } : null)
  const units = rows.map((row, motif): Unit => {
    const goesBack = isBack(rows, motif, cuff.shared)
    const goesOn = cuff.shared && isBack(rows, motif + 1 < rows.length ? motif + 1 : motif, cuff.shared)
    // Up and down meet at the same edge and need no turn; without sharing the wire comes back behind the cuff.
    const between = goesOn ? 0 : cuff.turns + (goesBack ? 0 : 0.5)
    return {
      section: 'motif',
      motif,
      steps: only(
        ...(goesBack ? backSteps(rows[motif - 1]!, row, (list) => items(list, 'row')) : [pick(items(row, 'row'))]),
        motif < rows.length - 1 ? wind(between) : null,
      ),
    }
  })
  const ends = (section: 'start' | 'end', motif: number): Unit => ({
    section,
    motif,
    steps: only(wind(cuff.endTurns)),
  })
  return {
    head: {
      slots,
      unit: 'rib',
      carriers: [{ id: 'wire', name: 'wire', kind: 'wire', mm: cuff.wireMm }],
      fixtures: {
        cuff: { name: 'cuff', d: (2 * (cuff.widthMm + cuff.thickMm)) / Math.PI, holes: 1, pitch: 0 },
      },
      cut: { folded: false, each: 'piece' },
    },
    units: [ends('start', -1), ...units, ends('end', rows.length)],
    spec,
    placeOf: ({ at }) => at,
  }
}

/** Beads of a rib that goes back, in the groups that stand between the shared beads of the rib before. */
export function groupsBetween(before: Row, row: Row): Row[] {
  const counts: number[] = [0]
  for (const bead of before)
    if (bead.spacing === undefined) counts[counts.length - 1]!++
    else counts.push(0)
  let from = 0
  return counts.reverse().map((count, k) => {
    const until = k === counts.length - 1 ? row.length : Math.min(row.length, from + count)
    const group = row.slice(from, until)
    from = until
    return group
  })
}

function backSteps(before: Row, row: Row, items: (list: Row) => Item[]): (Step | null)[] {
  const shared = before.flatMap((bead, at) => (bead.spacing === undefined ? [] : [at])).reverse()
  return groupsBetween(before, row).flatMap((group, k) => [
    pick(items(group)),
    k < shared.length
      ? { do: 'pass', refs: [{ bead: 'row', of: 'prev', at: shared[k]!, hole: 'b', way: 'back' }] }
      : null,
  ])
}

// ---- lists

/** Rows written once up to the middle, and mirrored: the middle one stands once if their count is odd. */
export const mirroredRows = <R>(lists: readonly R[], count: number): R[] =>
  Array.from({ length: count }, (_, i) => lists[Math.min(i, count - 1 - i)]!)

/** Places of rows whose length breaks the commonest step from one to the next. */
export function stepBreaks(lengths: readonly number[]): number[] {
  const steps = lengths.slice(1).map((length, i) => length - lengths[i]!)
  const often = (step: number): number => steps.filter((s) => s === step).length
  const usual = steps.reduce((best, step) => (often(step) > often(best) ? step : best), steps[0] ?? 0)
  return steps.flatMap((step, i) => (step === usual ? [] : [i + 1]))
}

/** Places of rows that have not as many beads as most. */
export function unequalRows(lengths: readonly number[]): number[] {
  const often = (length: number): number => lengths.filter((l) => l === length).length
  const usual = lengths.reduce((best, length) => (often(length) > often(best) ? length : best), lengths[0] ?? 0)
  return lengths.flatMap((length, i) => (length === usual ? [] : [i]))
}
