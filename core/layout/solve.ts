import type { Outline } from './body'
import { findMirror, symmetrise } from './mirror'
import { imageOf, type Lying, lyingOf, mirrored, pointOf, type Pose, poseIn, posesOf, turned } from './pose'
import type { CellAnswer, CellProblem, ChainAnswer, ChainProblem, EndProblem, Poses, Tie } from './problem'
import { relax } from './relax'
import { fitted, roughPoses, type RoughTie } from './rough'

/** Share of the bridges that must map to bridges if a cell is taken for symmetric. */
const KEPT = 0.9
/** Room between copies at first: motifs that have slid into each other never come free again. */
const ROOM = 1.1
/** Ends are begun so far outside, mm, so that loops do not snare. */
const OUTSIDE_MM = 5
/** Share of the thread’s pull that draws hanging beads down. */
const HANGING = 0.04
/** Ends are shaken by so much at first, mm. */
const SHAKEN_MM = 1
const LEAST_PITCH = 0.5

/** Finds how the beads of one period of a chain lie, and its pitch. */
export function solveCell(problem: CellProblem): CellAnswer {
  const { outlines, ties, glide, lies, hung } = problem
  const n = outlines.length
  if (n === 0) return { poses: [], pitchMm: LEAST_PITCH, mirror: null, rounds: 0, overlapMm: 0, settled: true }

  const rough = problem.motifs.some((m) => m > 0) ? motifByMotif(problem) : oneMotif(problem)
  let { poses } = rough
  const meanY = (list: readonly Pose[]): number => list.reduce((s, p) => s + p.y, 0) / list.length
  // Always the same side up: the first bead that lies well off the axis lies above it.
  if (lies.every((side) => side === null)) {
    const mid = meanY(poses)
    const off = poses.find((p) => Math.abs(p.y - mid) > 1)
    if (off && off.y > mid) poses = poses.map(mirrored)
  }

  const even = symmetryOf(problem, poses)
  if (even) poses = poses.map((p) => turned(p, even.turn))
  const wide = (i: number): number => outlines[i]!.d / 2
  const right = Math.max(...poses.map((p, i) => p.x + wide(i)))
  const left = Math.min(...poses.map((p, i) => p.x - wide(i)))
  let pitch = Math.max(LEAST_PITCH, rough.onX, ROOM * (right - left))
  if (hung) {
    pitch = Math.max(LEAST_PITCH, hung.pitchMm)
    poses = hangingPoses(poses, outlines, hung.carries)
  } else {
    const mid = meanY(poses)
    poses = poses.map((p) => ({ ...p, y: p.y - mid }))
  }

  const lying = lyingOf(even ? poses : poses.map(unlined))
  if (even) symmetrise(lying, even.of)
  const { pitchMm, rounds, overlapMm, settled } = relax({
    outlines,
    lying,
    ties,
    pitchMm: pitch,
    glide,
    ...(hung ? { weights: outlines.map(() => HANGING), fixed: hung.carries } : {}),
    ...(even && !hung ? { tidy: () => symmetrise(lying, even.of) } : {}),
  })
  centre(lying, !glide && !hung)
  return { poses: posesOf(lying), pitchMm, mirror: even && !hung ? even.of : null, rounds, overlapMm, settled }
}

/** A first picture of a cell, and how far it is from copy to copy in it, mm; 0 where nothing says it. */
interface FirstPicture {
  readonly poses: Pose[]
  readonly onX: number
}

/** The first picture of one motif, with what of the copies before it hangs on it. */
function oneMotif(problem: CellProblem): FirstPicture {
  const { outlines, ties, lies } = problem
  const n = outlines.length
  const before: { readonly of: number; readonly shift: number }[] = []
  const imageIndex = (of: number, shift: number): number => {
    const known = before.findIndex((b) => b.of === of && b.shift === shift)
    return n + (known >= 0 ? known : before.push({ of, shift }) - 1)
  }
  const roughTies = ties.map((t): RoughTie => (t.shift === 0 ? t : { ...t, a: imageIndex(t.a, t.shift) }))
  const all = roughPoses({
    outlines: [...outlines, ...before.map(({ of }) => outlines[of]!)],
    ties: roughTies,
    onward: before.map(({ of }, k) => [n + k, of] as const),
    lies: [...lies, ...before.map(({ of }) => lies[of]!)],
    apart: before.flatMap((one, k) =>
      before.slice(0, k).flatMap((other, h): [number, number, number][] => {
        const mm = one.shift === other.shift ? wayBetween(problem, one.of, other.of) : Infinity
        return mm === Infinity ? [] : [[n + k, n + h, mm]]
      }),
    ),
  })
  // Turned so that the chain runs to the right: a bead of the copy before and its fellow here are one pitch apart.
  let [sx, sy] = [0, 0]
  before.forEach(({ of, shift }, k) => {
    sx += (all[of]!.x - all[n + k]!.x) / shift / before.length
    sy += (all[of]!.y - all[n + k]!.y) / shift / before.length
  })
  const angle = before.length > 0 ? -Math.atan2(sy, sx) : 0
  return { poses: all.slice(0, n).map((p) => turned(p, angle)), onX: Math.hypot(sx, sy) }
}

/**
 * The first picture of several motifs that follow each other: each by itself with what of the one before it hangs on,
 * put where that lies. All of them in one picture would bend and tangle.
 */
function motifByMotif({ outlines, ties, lies, motifs }: CellProblem): FirstPicture {
  const placed: (Pose | null)[] = outlines.map(() => null)
  const count = Math.max(...motifs) + 1
  for (let m = 0; m < count; m++) {
    const own = outlines.flatMap((_, i) => (motifs[i] === m ? [i] : []))
    const index = new Map(own.map((i, k) => [i, k]))
    const before: number[] = []
    const local = (i: number): number => {
      const known = before.indexOf(i)
      return own.length + (known >= 0 ? known : before.push(i) - 1)
    }
    const near = ties.flatMap((t): RoughTie[] => {
      const [a, b] = [index.get(t.a), index.get(t.b)]
      if (t.shift === 0 && a !== undefined && b !== undefined) return [{ ...t, a, b }]
      // What comes later hangs on this one when its turn comes.
      if (b !== undefined && (t.shift > 0 || motifs[t.a]! < m)) return [{ ...t, a: local(t.a), b }]
      if (a !== undefined && t.shift === 0 && motifs[t.b]! < m) return [{ ...t, a, b: local(t.b) }]
      return []
    })
    const all = [...own, ...before]
    const rough = roughPoses({
      outlines: all.map((i) => outlines[i]!),
      ties: near,
      onward: [],
      lies: all.map((i) => lies[i]!),
    })
    const mean = (list: readonly Pose[]): { x: number; y: number } => ({
      x: list.reduce((sum, p) => sum + p.x, 0) / Math.max(1, list.length),
      y: list.reduce((sum, p) => sum + p.y, 0) / Math.max(1, list.length),
    })
    const [middle, behind] = [mean(rough.slice(0, own.length)), mean(rough.slice(own.length))]
    const angle = before.length > 0 ? -Math.atan2(middle.y - behind.y, middle.x - behind.x) : 0
    const level = rough.map((p) => turned(p, angle))
    const at = mean(level.slice(own.length))
    const known = before.flatMap((i) => placed[i] ?? [])
    const to = known.length > 0 ? mean(known) : at
    own.forEach((i, k) => {
      const p = level[k]!
      placed[i] = { ...p, x: p.x - at.x + to.x, y: p.y - at.y + to.y }
    })
  }
  return { poses: placed.map((p) => p!), onX: 0 }
}

/** Beads that carry lie in a line as they are strung, the others below them. */
function hangingPoses(poses: readonly Pose[], outlines: readonly Outline[], carries: readonly boolean[]): Pose[] {
  const mean = (of: (p: Pose) => number, has: (i: number) => boolean): number => {
    const some = poses.filter((_, i) => has(i))
    return some.reduce((sum, p) => sum + of(p), 0) / Math.max(1, some.length)
  }
  const isCarrying = (i: number): boolean => carries[i]!
  const [cx, cy] = [mean((p) => p.x, isCarrying), mean((p) => p.y, isCarrying)]
  const isAbove =
    mean(
      (p) => p.y,
      (i) => !isCarrying(i),
    ) < cy
  const long = outlines.reduce((sum, { l }, i) => sum + (carries[i] ? l : 0), 0)
  let x = cx - long / 2
  return poses.map((p, i) => {
    const below = { ...p, y: p.y - cy }
    if (!carries[i]) return isAbove ? mirrored(below) : below
    x += outlines[i]!.l
    return { x: x - outlines[i]!.l / 2, y: 0, turn: 0, flip: p.flip }
  })
}

/** How far beads are moved off one line, mm: what lies quite straight would never leave it. */
const OFF_LINE_MM = 0.05
const unlined = (p: Pose, i: number): Pose => ({ ...p, y: p.y + OFF_LINE_MM * Math.sin(2.4 * i + 1) })

/** Shortest way from one bead to another along beads and thread of one copy, mm; infinite where there is none. */
function wayBetween({ outlines, ties }: CellProblem, from: number, to: number): number {
  const way = new Array<number>(outlines.length).fill(Infinity)
  way[from] = 0
  // As often as a way can have beads at most, and no longer than something changes.
  for (let round = 0, changed = true; changed && round < outlines.length; round++) {
    changed = false
    for (const { a, b, shift } of ties) {
      if (shift !== 0) continue
      const mm = (outlines[a]!.l + outlines[b]!.l) / 2
      for (const [p, q] of [
        [a, b],
        [b, a],
      ] as const)
        if (way[p]! + mm < way[q]! - 1e-9) {
          way[q] = way[p]! + mm
          changed = true
        }
    }
  }
  return way[to]!
}

function centre({ x, y }: Lying, across: boolean): void {
  const mean = (list: Float64Array): number => list.reduce((s, v) => s + v, 0) / list.length
  const [mx, my] = [mean(x), across ? mean(y) : 0]
  for (let i = 0; i < x.length; i++) {
    x[i]! -= mx
    y[i]! -= my
  }
}

/** The mirror about the chain’s axis under which nearly all bridges map to bridges. */
function symmetryOf({ outlines, kinds, ties }: CellProblem, poses: readonly Pose[]) {
  const mirror = findMirror({ poses, kinds, holes: outlines.map(({ holes }) => holes.length) })
  // Beads that are all their own image lie in one line: that is what is to be found out, not to be kept.
  if (!mirror || mirror.of.every((j, i) => i === j)) return null
  const key = (a: number, b: number, shift: number): string => `${a} ${b} ${shift}`
  const pairs = new Map<string, Tie>()
  for (const t of ties) if (t.a !== t.b || t.shift !== 0) pairs.set(key(t.a, t.b, t.shift), t)
  if (pairs.size === 0) return mirror
  let kept = 0
  for (const { a, b, shift } of pairs.values()) {
    const [p, q] = [mirror.of[a]!, mirror.of[b]!]
    if (pairs.has(key(p, q, shift)) || (shift === 0 && pairs.has(key(q, p, 0)))) kept++
  }
  return kept / pairs.size >= KEPT ? mirror : null
}

/** Finds how beads at an end lie against the copy of the cell that they hang on; nothing else moves. */
export function solveEnd(problem: EndProblem, cell: CellAnswer, glide: boolean): Poses {
  const { outlines, ties, fixed, like, side } = problem
  const goals = fixed.map((one) =>
    one === null ? null : imageOf(poseIn(cell.poses, one.of), one.shift, cell.pitchMm, glide),
  )
  const rough = fitted(
    roughPoses({ outlines, ties, onward: [], lies: outlines.map(() => null), shakenMm: SHAKEN_MM }),
    goals,
    side === 'start' ? -1 : 1,
  )
  const drawn = drawnAt(problem)
  const relaxed = (from: readonly Pose[]): Poses => {
    const lying = lyingOf(from.map((p, i) => goals[i] ?? unlined(p, i)))
    relax({ outlines, lying, fixed: goals.map((goal) => goal !== null), ties, pitchMm: 0, glide: false, drawn })
    return posesOf(lying)
  }
  const outside = drawnOut(problem, rough)
  const one = relaxed(outside)
  if (like.every((of) => of === null)) return one
  // Beads called like those of a motif may also lie as one more motif would: what leaves less thread to be seen is so.
  const other = relaxed(
    outside.map((p, i) => {
      const of = like[i]
      return of ? imageOf(poseIn(cell.poses, of.of), of.shift, cell.pitchMm, glide) : p
    }),
  )
  return seenMm(problem, other) < seenMm(problem, one) ? other : one
}

/** Thread between holes, mm, each bridge as often as it is passed. */
function seenMm({ outlines, ties }: EndProblem, poses: Poses): number {
  const at = (i: number, hole: number, end: 0 | 1): { x: number; y: number } =>
    pointOf(poseIn(poses, i), ((end === 0 ? -1 : 1) * outlines[i]!.l) / 2, outlines[i]!.holes[hole] ?? 0)
  return ties.reduce((sum, { a, aHole, aEnd, b, bHole, bEnd, weight }) => {
    const [p, q] = [at(a, aHole, aEnd), at(b, bHole, bEnd)]
    return sum + weight * Math.hypot(p.x - q.x, p.y - q.y)
  }, 0)
}

/** Loose beads turned about where they hang on the cell until they lie outside, in line with it, and moved on. */
function drawnOut({ fixed, ties, side }: EndProblem, poses: readonly Pose[]): readonly Pose[] {
  const out = side === 'start' ? -1 : 1
  const held = ties.flatMap(({ a, b }) =>
    (fixed[a] === null) === (fixed[b] === null) ? [] : [fixed[a] === null ? b : a],
  )
  const loose = poses.filter((_, i) => fixed[i] === null)
  const mean = (list: readonly Pose[], of: (p: Pose) => number): number =>
    list.reduce((sum, p) => sum + of(p), 0) / Math.max(1, list.length)
  const at = held.length > 0 ? held.map((i) => poses[i]!) : poses.filter((_, i) => fixed[i] !== null)
  const [ax, ay] = [mean(at, (p) => p.x), mean(at, (p) => p.y)]
  const now = Math.atan2(mean(loose, (p) => p.y) - ay, mean(loose, (p) => p.x) - ax)
  const turn = (out > 0 ? 0 : Math.PI) - now
  return poses.map((p, i) => {
    if (fixed[i] !== null) return p
    const moved = turned({ ...p, x: p.x - ax, y: p.y - ay }, turn)
    return { ...moved, x: moved.x + ax + out * OUTSIDE_MM, y: moved.y + ay }
  })
}

/** How hard an end is drawn out, as a share of the pull of the thread. */
const DRAWN = 0.3

/** An end is worn drawn out: by its findings, or by all of its loose beads alike. */
function drawnAt({ outlines, fixed, side }: EndProblem): number[] {
  const out = side === 'start' ? -1 : 1
  const loose = outlines.flatMap((_, i) => (fixed[i] === null ? [i] : []))
  const findings = loose.filter((i) => outlines[i]!.shape === 'finding')
  const by = new Set(findings.length > 0 ? findings : loose)
  return outlines.map((_, i) => (by.has(i) ? (out * DRAWN) / by.size : 0))
}

/** Cells that were solved, by their question: chains of other ends ask for the same. */
const solved = new Map<string, CellAnswer>()
const MOST_SOLVED = 60

function keptCell(problem: CellProblem): CellAnswer {
  const key = JSON.stringify(problem)
  let answer = solved.get(key)
  if (!answer) {
    answer = solveCell(problem)
    if (solved.size >= MOST_SOLVED) solved.clear()
    solved.set(key, answer)
  }
  return answer
}

/** Lays a chain: its cells, and the ends against the copies that they hang on. */
export function solveChain({ cells, start, end }: ChainProblem): ChainAnswer {
  const answers = cells.map(keptCell)
  const at = (problem: EndProblem | null): Poses =>
    problem ? solveEnd(problem, answers[problem.on]!, cells[problem.on]!.glide) : []
  return { cells: answers, start: at(start), end: at(end) }
}
