import { keyOf } from '../grid/key'
import { problem } from '../problem'
import { bridgeByPose, type Pose } from '../recipe/measure'
import { runRows, type Row, type RowProgram } from '../recipe/rows'
import type { Done, Node, Run } from '../recipe/run'
import { stepWords, type StepWords } from '../recipe/words'
import { totalsOf } from '../recipe/total'
import type { Act, CarrierId } from './act'
import { freeDrawing, type Carrier, type PlacedBead } from './drawing'
import { halfBox, type Point } from './lattice'
import type { Strung } from './strung'
import { lengthOfRow, type ThreadRun, type Work, type WorkingRow } from './technique'

/** Where the beads of row work lie, and what carries them. */
export interface RowLayout {
  readonly placed: readonly PlacedBead[]
  readonly carriers: readonly Carrier[]
  readonly widthMm: number
  readonly lengthMm: number
  /** Where a finding lies that a row goes through; null where none has a place. */
  fixtureAt?(fixture: string, row: number): Point | null
}

/**
 * Work of rows that one scheme leads through (recipe/rows.ts), as its file says it: where the rows lie and how long
 * the work is come from formulas; counts, passes, ways, acts and words from the one interpreter.
 */
export interface RowWork extends Omit<Strung, 'drawing' | 'path' | 'acts' | 'row'> {
  program(work: Work, rows: readonly Row[]): RowProgram
  layout(work: Work, rows: readonly Row[]): RowLayout
  /** What is cut, from the way of each carrier through the work, mm. */
  runs(work: Work, ways: ReadonlyMap<string, number>): readonly ThreadRun[]
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

interface Told {
  readonly program: RowProgram
  readonly run: Run
  readonly layout: RowLayout
  readonly words: readonly StepWords[]
  /** Steps of each row, as places in `run.done`; what begins and ends the work goes with the first and the last. */
  readonly steps: readonly (readonly number[])[]
  /** Beads by row and place. */
  readonly nodes: ReadonlyMap<number, Node>
  /** Way of each carrier through the work, mm; worked out when it is asked for. */
  ways?: ReadonlyMap<string, number>
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
    fixtureAt(fixture, row) {
      const at = layout.fixtureAt?.(fixture, row)
      return at ? moved(at) : null
    },
  }
}

/** Row work as a technique of lines. */
export function rowWork(own: RowWork): Strung {
  const kept = new WeakMap<object, Told>()
  const keyOfNode = (work: Pick<Work, 'columns'>, program: RowProgram, node: Node): number =>
    keyOf(work.columns, program.placeOf(node), node.motif)

  function tell(work: Work): Told {
    const rows = rowsOfWork(work)
    const program = own.program(work, rows)
    const run = runRows(program)
    const steps: number[][] = rows.map(() => [])
    run.done.forEach(({ motif }, k) => {
      steps[Math.max(0, Math.min(rows.length - 1, motif))]?.push(k)
    })
    return {
      program,
      run,
      steps,
      layout: framed(own.layout(work, rows), work.bead),
      words: stepWords(run),
      nodes: new Map(run.nodes.flatMap((n) => (n.isFixture ? [] : [[keyOfNode(work, program, n), n]]))),
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

  function actsOf(work: Work, { program, run }: Told, done: Done): Act[] {
    const carrier = run.head.carriers.find((c) => c.id === done.by)!
    const by = CARRIERS[carrier.kind] ?? 'thread'
    const to = done.fixture === undefined ? '' : (run.head.fixtures[done.fixture]?.name ?? done.fixture)
    const keyAt = (id: number): number => keyOfNode(work, program, run.nodes[id]!)
    switch (done.act) {
      case 'pick':
        return [{ do: 'pick', by, keys: done.goes.map((g) => keyAt(g.node)) }]
      case 'pass':
        return done.goes.map(({ node, hole, way }) => ({
          ...{ do: 'pass', by, key: keyAt(node), hole: hole === 0 ? 'a' : 'b', way: way === 1 ? 'on' : 'back' },
        })) as Act[]
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

  /** Ways of the carriers through the work as its beads lie, mm. */
  function waysOf(work: Work, { program, run, layout }: Told): Map<string, number> {
    const places = new Map(layout.placed.map((p) => [p.key, p]))
    const poseOf = (node: Node): Pose | null => {
      if (node.isFixture) {
        const at = layout.fixtureAt?.(node.slot, node.motif)
        return at ? { ...at, turnDegrees: 0 } : null
      }
      const place = places.get(keyOfNode(work, program, node))
      const turned = program.isTurned?.(node) ?? false
      return place
        ? { x: place.x, y: place.y, turnDegrees: place.turnDegrees + (turned ? 180 : 0), flip: turned ? -1 : 1 }
        : null
    }
    const { ways } = totalsOf(run, bridgeByPose(poseOf))
    return new Map([...ways].map(([by, way]) => [by, way.rodMm + way.bridgeMm + way.extraMm]))
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
      told.ways ??= waysOf(work, told)
      return {
        passes: most,
        passesAt: (c, r, hole) => nodes.get(keyOf(work.columns, c, r))?.passes[hole === 'a' ? 0 : 1] ?? 0,
        runs: own.runs(work, told.ways),
      }
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
      const acts = done.flatMap((one) => actsOf(work, told, one))
      return {
        keys: Int32Array.from(acts.flatMap((act) => (act.do === 'pick' ? Array.from(act.keys) : []))),
        acts,
        told: (told.steps[i] ?? []).map((k) => {
          const { act, goes } = told.run.done[k]!
          const keys = act === 'pick' ? goes.map((g) => keyOfNode(work, told.program, told.run.nodes[g.node]!)) : []
          return { ...told.words[k]!, keys }
        }),
      }
    },
  }
}
