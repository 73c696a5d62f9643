import { judged, sameBeads, type Judged } from '../layout/judge'
import { downPose, type Laid } from '../layout/laid'
import type { Recipe } from '../recipe/language'
import { portAt } from '../recipe/measure'
import type { Done, Port, Run } from '../recipe/run'
import type { Params } from '../recipe/total'
import type { Point } from './lattice'
import type { Pictured, PicturedBead } from './step-picture'

/** A recipe with the values of its fields. */
export interface Told {
  readonly recipe: Recipe
  readonly params: Params
}

/** A few motifs of a recipe as they lie, to work on. */
export interface Board extends Told {
  readonly run: Run
  /** Null where it is too much to be laid, or nothing is strung yet. */
  readonly laid: Laid | null
  readonly motifs: number
}

/** The board as it is drawn; null where nothing lies. */
export const picturedBoard = ({ run, laid }: Board): Pictured | null =>
  laid && Number.isFinite(laid.left)
    ? {
        run,
        keys: [],
        poseOf: ({ id }) => {
          const pose = laid.poses[id]
          return pose ? downPose(pose, laid) : null
        },
      }
    : null

/** Steps that go through the same holes as before, but some of them the other way, by motif and path. */
function turnedSteps(now: Run, before: Run, known: (node: number) => number | null): ReadonlySet<string> {
  const keyOf = ({ motif, path }: Done): string => `${motif} ${path}`
  const were = new Map<string, Done>()
  for (const one of before.done) if (!were.has(keyOf(one))) were.set(keyOf(one), one)
  const out = new Set<string>()
  for (const one of now.done) {
    const was = were.get(keyOf(one))
    if (!was || was.goes.length !== one.goes.length) continue
    const isSame = one.goes.every(
      ({ node, hole }, k) => known(node) === was.goes[k]!.node && hole === was.goes[k]!.hole,
    )
    if (isSame && one.goes.some(({ way }, k) => way !== was.goes[k]!.way)) out.add(one.path)
  }
  return out
}

/**
 * What a changed recipe does wrong. A hole that is entered at its other end is judged in the picture from before the
 * change: a wrong way is often another sound object, to which a fresh picture adapts. All else is judged as it lies
 * now: what is drawn together by a new step lay apart before it.
 */
export function judgedAnew(now: Board, before: Board | null): Judged[] {
  const own = now.laid ? judged(now.run, now.laid) : []
  if (!before?.laid) return own
  const known = sameBeads(now.run, before.run)
  const turned = turnedSteps(now.run, before.run, known)
  if (turned.size === 0) return own
  const seen = new Set(own.map(({ code, path }) => `${code} ${path}`))
  return [
    ...own,
    ...judged(now.run, before.laid, known).filter(
      ({ code, path }) => code === 'wrong-end' && turned.has(path) && !seen.has(`${code} ${path}`),
    ),
  ]
}

const numbersOf = (path: string): number[] =>
  path
    .split('/')
    .slice(1)
    .filter((part) => part !== 'steps')
    .map(Number)

/** Whether a step stands before a place of its section, or lies inside what stands there. */
export function standsBefore(path: string, place: string): boolean {
  const [one, other] = [numbersOf(path), numbersOf(place)]
  for (let k = 0; k < Math.max(one.length, other.length); k++) {
    // What lies inside a repeat is not before the repeat itself.
    if (other[k] === undefined) return false
    if (one[k] === undefined) return true
    if (one[k] !== other[k]) return one[k]! < other[k]!
  }
  return false
}

/**
 * Motif whose steps are seen at a place: the second, since it shows what it has of the one before; a later one where
 * the steps that stand there are done only in some motifs.
 */
export function motifInHand(place: string, { motifs, run }: Board): number {
  const [section] = place.split('/')
  if (section !== 'motif') return section === 'start' ? -1 : motifs
  const list = place.slice(0, place.lastIndexOf('/') + 1)
  const there = run.done.filter((one) => one.motif >= 1 && one.motif < motifs && one.path.startsWith(list))
  return there.reduce((least, { motif }) => Math.min(least, motif), motifs) % motifs || Math.min(1, motifs - 1)
}

/** The board up to a place of the recipe. */
export interface UpTo {
  readonly motif: number
  /** Steps of the motif in hand that are done. */
  readonly done: readonly Done[]
  /** Beads and findings that are there. */
  readonly nodes: number
  /** Where each carrier came out last. */
  readonly ports: Done['ports']
}

/** What is done when the hands come to a place of the recipe. */
export function upTo(board: Board, place: string): UpTo {
  const motif = motifInHand(place, board)
  const { done } = board.run
  const next = done.findIndex((one) => one.motif > motif || (one.motif === motif && !standsBefore(one.path, place)))
  const last = next < 0 ? done.length : next
  const before = done[last - 1]
  return {
    motif,
    done: done.slice(0, last).filter((one) => one.motif === motif),
    nodes: before?.nodes ?? 0,
    ports: before?.ports ?? {},
  }
}

/** A bead is pressed up to so far beyond its edge, mm. */
const BESIDE_MM = 0.5

/** The end of a hole that is meant by a point of the picture: of the bead there the nearest one; null beside all. */
export function portPressed(beads: readonly PicturedBead[], p: Point): Port | null {
  let best: Port | null = null
  let least = Infinity
  for (const { node, spec, x, y, turnDegrees, flip } of beads) {
    const turn = (turnDegrees * Math.PI) / 180
    const [dx, dy] = [p.x - x, p.y - y]
    const u = dx * Math.cos(turn) + dy * Math.sin(turn)
    const v = (dy * Math.cos(turn) - dx * Math.sin(turn)) * flip
    const [a, b] = [spec.l / 2 + BESIDE_MM, spec.d / 2 + BESIDE_MM]
    const far = Math.max(Math.abs(u) / a, Math.abs(v) / b)
    if (far > 1 || far >= least) continue
    least = far
    best = { node, hole: spec.spacing === undefined || v < 0 ? 0 : 1, end: u < 0 ? 0 : 1 }
  }
  return best
}

/** Where an end of a hole of a bead in the picture lies. */
export const portOfPictured = ({ spec, ...pose }: PicturedBead, { hole, end }: Omit<Port, 'node'>): Point =>
  portAt({ hole, end }, { spec }, pose)
