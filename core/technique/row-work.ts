import { keyOf } from '../grid/key'
import { problem } from '../problem'
import { bridgeByPose, bridgeByTouch, type Pose } from '../recipe/measure'
import { runRows, type Row, type RowProgram } from '../recipe/rows'
import type { Done, Node, Port, Run } from '../recipe/run'
import { stepWords, type StepWords } from '../recipe/words'
import { greatestPasses, totalsOf, type BridgeMm, type Passes, type Totals } from '../recipe/total'
import type { Act, CarrierId } from './act'
import { freeDrawing, type Carrier, type PlacedBead } from './drawing'
import { halfBox, type Point } from './lattice'
import { stepPicture } from './step-picture'
import type { Strung } from './strung'
import {
  lengthOfRow,
  type Finding,
  type ThreadPath,
  type ThreadRun,
  type Work,
  type WorkingRow,
  type WorkSums,
} from './technique'

/** Where the beads of row work lie, and what carries them. */
export interface RowLayout {
  readonly placed: readonly PlacedBead[]
  readonly carriers: readonly Carrier[]
  readonly widthMm: number
  readonly lengthMm: number
  /** Where a finding lies that a row goes through; null where none has a place. */
  fixtureAt?(fixture: string, row: number): Point | null
  /** Whether beads touch whatever their places say: of work that is shown unrolled. */
  readonly touches?: boolean
  /** How beads and findings lie, where they are not told from their places; null where one has none. */
  poseOf?(node: Node): Pose | null
  /** Where the middle of what the work hangs on lies, mm. */
  readonly hungAt?: Point
  /** How far it is from hole to hole, where the picture does not show it; as the beads lie if null or left out. */
  bridge?(from: Port, to: Port, nodes: readonly Node[]): number | null
}

/**
 * Work of rows that one scheme leads through (recipe/rows.ts), as its file says it: where the rows lie and how long
 * the work is come from formulas; counts, passes, ways, acts and words from the one interpreter.
 */
export interface RowWork extends Omit<Strung, 'drawing' | 'path' | 'acts' | 'row'> {
  program(work: Work, rows: readonly Row[]): RowProgram
  /** `run`: the work as it is told, for layouts that follow from it; telling costs more than laying out. */
  layout(work: Work, rows: readonly Row[], run: () => Run): RowLayout
  /** What is cut, from the way of each carrier through the work, mm. */
  runs(work: Work, ways: ReadonlyMap<string, number>): readonly ThreadRun[]
  /** What runs through the beads, where it is neither the thread nor the needle of the piece. */
  strungOn?(work: Work): NonNullable<ThreadPath['cord']>
  /** Whether the way from one line to the next is counted along the work only, since turns lead across. */
  readonly turnsAcross?: boolean
  /** How far it is from hole to hole, where the picture does not show it; as the beads lie if null or left out. */
  bridge?(from: Port, to: Port, nodes: readonly Node[], far?: boolean): number | null
}

/** Beads of each line of a work, each in its size. */
export const rowsOfWork = (work: Work): Row[] =>
  Array.from({ length: work.rows }, (_, r) =>
    Array.from({ length: lengthOfRow(work, r) }, (_, c) => work.beadAt?.(c, r) ?? work.bead),
  )

/** What carries beads, by what it is: pins are wire too. */
const CARRIERS: Readonly<Record<string, CarrierId>> = { thread: 'thread', wire: 'wire', cord: 'cord', pin: 'wire' }

/** Row work is told hole by hole: so many beads are held at most, far more than anyone strings. */
export const MOST_TOLD = 60_000

/** The work as it is told and laid out, each part of it worked out once it is asked for: a drawing needs no words. */
interface Told {
  readonly program: RowProgram
  readonly run: Run
  readonly layout: RowLayout
  readonly words: readonly StepWords[]
  /** Steps of each row, as places in `run.done`; what begins and ends the work goes with the first and the last. */
  readonly steps: readonly (readonly number[])[]
  /** Key of each bead, −1 where it has none; and the other way round. */
  readonly keys: readonly number[]
  readonly nodes: ReadonlyMap<number, Node>
  /** Sums of the run, once they were asked for. */
  totals?: Totals
}

/** A value that is made when it is first asked for. */
function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null
  return () => (made ??= { value: make() }).value
}

/** A layout moved and made larger so that every bead lies within it, as it is turned. */
function framed(layout: RowLayout, usual: Work['bead']): RowLayout {
  const edge = { left: 0, top: 0, right: layout.widthMm, bottom: layout.lengthMm }
  for (const { x, y, turnDegrees, bead = usual } of layout.placed) {
    const half = halfBox({ beadX: bead.l, beadY: bead.d }, turnDegrees)
    edge.left = Math.min(edge.left, x - half.x)
    edge.right = Math.max(edge.right, x + half.x)
    edge.top = Math.min(edge.top, y - half.y)
    edge.bottom = Math.max(edge.bottom, y + half.y)
  }
  const moved = <P extends Point>(p: P): P => ({ ...p, x: p.x - edge.left, y: p.y - edge.top })
  return {
    placed: layout.placed.map(moved),
    carriers: layout.carriers.map((carrier) => ({ ...carrier, points: carrier.points.map(moved) })),
    widthMm: edge.right - edge.left,
    lengthMm: edge.bottom - edge.top,
    touches: layout.touches ?? false,
    ...(layout.hungAt ? { hungAt: moved(layout.hungAt) } : {}),
    ...(layout.bridge ? { bridge: (from, to, nodes) => layout.bridge!(from, to, nodes) } : {}),
    fixtureAt(fixture, row) {
      const at = layout.fixtureAt?.(fixture, row)
      return at ? moved(at) : null
    },
    ...(layout.poseOf
      ? {
          poseOf(node: Node) {
            const pose = layout.poseOf!(node)
            return pose && moved(pose)
          },
        }
      : {}),
  }
}

/** Said of beads of a line that no step strings. */
const BEYOND = 'no step strings them'

/** Cells of the beads that a step goes through, in order. */
const pickedKeys = ({ goes }: Done, keys: readonly number[]): number[] =>
  goes.map((g) => keys[g.node]!).filter((key) => key >= 0)

/** What a step picks up: an act for each run of beads that are strung by the same hole. */
function pickActs({ goes }: Done, keys: readonly number[], by: CarrierId): Act[] {
  const acts: { do: 'pick'; by: CarrierId; keys: number[]; hole?: 'b' }[] = []
  for (const { node, hole } of goes) {
    if (keys[node]! < 0) continue
    const last = acts.at(-1)
    if (last && (last.hole === 'b') === (hole === 1)) last.keys.push(keys[node]!)
    else acts.push({ do: 'pick', by, keys: [keys[node]!], ...(hole === 1 ? { hole: 'b' } : {}) })
  }
  return acts.length > 0 ? acts : [{ do: 'pick', by, keys: [] }]
}

/** Row work as a technique of lines. */
export function rowWork(own: RowWork): Strung {
  const kept = new WeakMap<object, Told>()
  function tell(work: Work): Told {
    const rows = rowsOfWork(work)
    const program = once(() => own.program(work, rows))
    const run = once(() => runRows(program()))
    const rowOf = (motif: number): number =>
      Math.max(0, Math.min(rows.length - 1, program().lineOf ? program().lineOf!(motif) : motif))
    const steps = once(() => {
      const out: number[][] = rows.map(() => [])
      run().done.forEach(({ motif }, k) => {
        out[rowOf(motif)]?.push(k)
      })
      return out
    })
    /** Cells of the beads; one that its line has no room for, or another bead in it already, has none. */
    const keys = once(() => {
      const taken = new Set<number>()
      return run().nodes.map((node) => {
        const [c, r] = [program().placeOf(node), rowOf(node.motif)]
        const key = keyOf(work.columns, c, r)
        if (node.isFixture || c >= (rows[r]?.length ?? 0) || taken.has(key)) return -1
        taken.add(key)
        return key
      })
    })
    const layout = once(() => framed(own.layout(work, rows, run), work.bead))
    const words = once(() => stepWords(run()))
    const nodes = once(() => new Map(run().nodes.flatMap((n) => (keys()[n.id]! < 0 ? [] : [[keys()[n.id]!, n]]))))
    return {
      get program() {
        return program()
      },
      get run() {
        return run()
      },
      get steps() {
        return steps()
      },
      get layout() {
        return layout()
      },
      get words() {
        return words()
      },
      get keys() {
        return keys()
      },
      get nodes() {
        return nodes()
      },
    }
  }
  function toldOf(work: Work): Told {
    if (!work.shape) return tell(work)
    let told = kept.get(work.shape)
    if (!told) {
      told = tell(work)
      kept.set(work.shape, told)
    }
    return told
  }

  function actsOf({ run, keys }: Told, done: Done): Act[] {
    const carrier = run.head.carriers.find((c) => c.id === done.by)!
    const by = CARRIERS[carrier.kind] ?? 'thread'
    const to = done.fixture === undefined ? '' : (run.head.fixtures[done.fixture]?.name ?? done.fixture)
    switch (done.act) {
      case 'pick':
        return pickActs(done, keys, by)
      case 'pass':
        return done.goes.flatMap(({ node, hole, way }): Act[] =>
          keys[node]! < 0
            ? []
            : [{ do: 'pass', by, key: keys[node]!, hole: hole === 0 ? 'a' : 'b', way: way === 1 ? 'on' : 'back' }],
        )
      case 'fix':
        return [{ do: 'fix', by, to }]
      case 'wrap':
        return [{ do: 'wrap', by, round: to, turns: done.amount ?? 1 }]
      case 'knot':
        return [{ do: 'knot', by, mm: done.amount ?? 0 }]
      case 'say':
        return []
    }
  }

  /** How beads and findings lie, told from their places. */
  function posesOf({ program, layout, keys }: Told): (node: Node) => Pose | null {
    const places = new Map(layout.placed.map((p) => [p.key, p]))
    return (node) => {
      if (node.isFixture) {
        const at = layout.fixtureAt?.(node.slot, node.motif)
        return at ? { ...at, turnDegrees: 0 } : null
      }
      const place = places.get(keys[node.id]!)
      const turned = program.isTurned?.(node) ?? false
      return place
        ? { x: place.x, y: place.y, turnDegrees: place.turnDegrees + (turned ? 180 : 0), flip: turned ? -1 : 1 }
        : null
    }
  }

  /** How far it is from hole to hole, as the beads lie. */
  function bridgeOf(told: Told): BridgeMm {
    const { layout } = told
    const poseOf = posesOf(told)
    const straight = bridgeByPose(layout.poseOf ?? poseOf)
    if (!own.turnsAcross) return straight
    const along = bridgeByPose(poseOf, 'along')
    return (from, to, nodes) => (nodes[from.node]!.motif === nodes[to.node]!.motif ? straight : along)(from, to, nodes)
  }

  /** What goes through each hole of a bead, by its diameter. */
  function wiresOf({ run, keys }: Told, columns: number): NonNullable<ThreadPath['wiresAt']> {
    const thick = new Map(run.head.carriers.map(({ id, mm }) => [id, mm]))
    const through = new Map<string, number[]>()
    for (const { by, goes } of run.done)
      for (const { node, hole } of goes) {
        const place = `${keys[node]!} ${hole}`
        const there = through.get(place)
        if (there) there.push(thick.get(by)!)
        else through.set(place, [thick.get(by)!])
      }
    return (c, r, hole) => through.get(`${keyOf(columns, c, r)} ${hole === 'a' ? 0 : 1}`) ?? []
  }
  /** Sums of the work, its carriers along the beads as they lie; worked out when they are asked for. */
  function sumsOf(told: Told): Totals {
    if (!told.totals) {
      const seen = told.layout.touches ? bridgeByTouch : bridgeOf(told)
      told.totals = totalsOf(told.run, (from, to, nodes, far) => {
        const said = told.layout.bridge?.(from, to, nodes) ?? own.bridge?.(from, to, nodes, far)
        return said ?? seen(from, to, nodes)
      })
    }
    return told.totals
  }

  return {
    ...own,
    drawing(work) {
      const { layout } = toldOf(work)
      return freeDrawing({ ...layout, bead: work.bead })
    },
    path(work) {
      const told = toldOf(work)
      const { nodes, run } = told
      const most = run.nodes.reduce((sum, n) => (n.isFixture ? sum : Math.max(sum, ...n.passes)), 1)
      const ways = new Map([...sumsOf(told).ways].map(([by, way]) => [by, way.rodMm + way.bridgeMm + way.extraMm]))
      return {
        passes: most,
        // A bead that no step strings is laid all the same, by its first hole.
        passesAt: (c, r, hole) => {
          const node = nodes.get(keyOf(work.columns, c, r))
          return node ? (node.passes[hole === 'a' ? 0 : 1] ?? 0) : hole === 'a' ? 1 : 0
        },
        runs: own.runs(work, ways),
        ...(own.wire ? { wiresAt: wiresOf(told, work.columns) } : {}),
        ...(own.strungOn ? { cord: own.strungOn(work) } : {}),
      }
    },
    sums(work) {
      const told = toldOf(work)
      return sumsOfRun(told.run, sumsOf(told), greatestPasses(told.run))
    },
    findings(work) {
      const told = toldOf(work)
      const faults = told.run.faults.map(({ code, says }): Finding => ({ code, weight: 'stops', says }))
      return [...faults, ...(own.findings?.(work) ?? [])]
    },
    check(work) {
      let beads = 0
      for (let r = 0; r < work.rows; r++) beads += lengthOfRow(work, r)
      const tooMany = problem(
        'beads-many',
        'lines',
        `${own.name} can hold ${MOST_TOLD} beads, not ${beads}. Make two parts of it.`,
      )
      return [...(beads > MOST_TOLD ? [tooMany] : []), ...own.check(work)]
    },
    row(i, work): Pick<WorkingRow, 'keys' | 'acts' | 'told'> {
      const told = toldOf(work)
      const done = (told.steps[i] ?? []).map((k) => told.run.done[k]!)
      // What lies in the line beyond what is strung is laid too, so that nothing is lost.
      const more = Array.from({ length: lengthOfRow(work, i) }, (_, c) => keyOf(work.columns, c, i)).filter(
        (key) => !told.nodes.has(key),
      )
      const acts: Act[] = [
        ...done.flatMap((one) => actsOf(told, one)),
        ...(more.length > 0 ? [{ do: 'pick', by: 'thread', keys: more } as const] : []),
      ]
      return {
        keys: Int32Array.from(acts.flatMap((act) => (act.do === 'pick' ? Array.from(act.keys) : []))),
        acts,
        told: [
          ...(told.steps[i] ?? []).map((k) => {
            const one = told.run.done[k]!
            return { ...told.words[k]!, keys: one.act === 'pick' ? pickedKeys(one, told.keys) : [] }
          }),
          ...(more.length > 0 ? [{ who: '', says: `lay ${more.length} more`, note: BEYOND, keys: more }] : []),
        ],
      }
    },
    pictures(i, work) {
      const told = toldOf(work)
      const { run, keys, layout } = told
      const of = {
        ...{ run, keys, poseOf: layout.poseOf ?? posesOf(told) },
        ...(own.wire?.upright ? { upright: true, lines: own.wire.stands ? carrying(layout.carriers) : [] } : {}),
      }
      return (told.steps[i] ?? []).map((k) => {
        const picture = stepPicture(of, k)
        // Of work that is shown unrolled the thread leads nowhere that is seen.
        return picture && layout.touches ? { ...picture, way: [], needle: null, enters: null } : picture
      })
    },
  }
}

/** What carries a work as a whole: its thickest lines. */
function carrying(carriers: readonly Carrier[]): Carrier[] {
  const most = carriers.reduce((thick, { thickMm }) => Math.max(thick, thickMm), 0)
  return carriers.filter(({ thickMm }) => thickMm === most)
}

/** Sums of a run under the names of its beads and carriers. */
export function sumsOfRun({ head }: Pick<Run, 'head'>, totals: Totals, most: Passes): WorkSums {
  return {
    beads: totals.beads,
    steps: totals.steps,
    slots: [...totals.counts].map(([slot, beads]) => ({
      slot,
      name: head.slots[slot]?.many ?? slot,
      spec: head.slots[slot]?.spec ?? '',
      beads,
      holes: (totals.passSums.get(slot) ?? []).map((passes, hole) => ({
        hole: hole === 0 ? ('a' as const) : ('b' as const),
        passes,
        most: most.get(slot)?.[hole]?.passes ?? 0,
      })),
    })),
    carriers: head.carriers.map(({ id, name }) => {
      const { rodMm = 0, bridgeMm = 0, extraMm = 0 } = totals.ways.get(id) ?? {}
      return {
        id,
        name,
        throughMm: rodMm,
        betweenMm: bridgeMm,
        roundMm: extraMm,
        lengthMm: rodMm + bridgeMm + extraMm,
      }
    }),
  }
}
