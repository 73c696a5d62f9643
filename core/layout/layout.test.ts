import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { angles, crossing, flower, lozenge, SAMPLES } from '../../tests/fixture/recipe'
import { requireSpec } from '../bead/spec'
import type { Recipe } from '../recipe/language'
import { runRecipe, type Params } from '../recipe/total'
import { keptDiscs } from './body'
import { chainOf, posesOfChain } from './chain'
import { answerTo, isKept, keepAnswer } from './keep'
import { layRun, portPoint } from './laid'
import { judged } from './judge'
import { imageOf, pointOf, poseIn, wrapped } from './pose'
import type { CellAnswer, CellProblem, ChainProblem } from './problem'
import { solveChain } from './solve'

const runOf = (recipe: Recipe, params: Params, n: number, size?: string) => ({
  run: runRecipe({ recipe, params, spec: (slot) => requireSpec(size ?? recipe.slots[slot]!.spec) }, n),
  n,
})
const LONG = 12
const chainFor = (recipe: Recipe, params: Params = {}, n = LONG, size?: string) =>
  chainOf(runOf(recipe, params, n, size), recipe, runOf(recipe, params, Math.max(n, LONG), size))!
const cellOf = (recipe: Recipe, params: Params = {}, size?: string): CellAnswer =>
  answerTo(chainFor(recipe, params, LONG, size).problem).cells[0]!
const pitch = (recipe: Recipe, params: Params = {}, size?: string): number => cellOf(recipe, params, size).pitchMm

/** Deepest that two beads of a cell and its next copy lie in each other, mm: on one thread, and all others. */
function overlaps(problem: CellProblem, { poses, pitchMm }: CellAnswer): { hard: number; riding: number } {
  const out = { hard: 0, riding: 0 }
  const n = problem.outlines.length
  for (const shift of [0, 1])
    for (let i = 0; i < n; i++)
      for (let j = shift === 0 ? i + 1 : 0; j < n; j++) {
        const joined = problem.ties.some(
          (t) => t.shift === shift && ((t.a === i && t.b === j) || (shift === 0 && t.a === j && t.b === i)),
        )
        const [p, q] = [poseIn(poses, i), imageOf(poseIn(poses, j), shift, pitchMm, problem.glide)]
        for (const [u, v, r] of keptDiscs(problem.outlines[i]!))
          for (const [s, t, w] of keptDiscs(problem.outlines[j]!)) {
            const [a, b] = [pointOf(p, u, v), pointOf(q, s, t)]
            const deep = (r + w) * (joined ? 1 : 0.93) - Math.hypot(a.x - b.x, a.y - b.y)
            if (joined) out.hard = Math.max(out.hard, deep)
            else out.riding = Math.max(out.riding, deep)
          }
      }
  return out
}

describe('the pitch of stitched chains', () => {
  // Measured with a prototype of its own; flowers of 4 and 7 measure about 14.5 mm (common practice).
  it.each([
    ['flower of 2 and 7', flower, { s: 2 }, 10.5],
    ['flower of 4 and 7', flower, {}, 14.73],
    ['flower of 6 and 7', flower, { s: 6 }, 19.14],
    ['flower of 4 and 5', flower, { p: 5 }, 14.33],
    ['flower of 4 and 6', flower, { p: 6 }, 14.36],
    ['flower of 4 and 8', flower, { p: 8 }, 15],
    ['flower of 4 and 9', flower, { p: 9 }, 15.12],
    ['flower of 4 and 10', flower, { p: 10 }, 15.13],
    ['ladder of three cubes', crossing, {}, 6.29],
    ['lozenge of three', lozenge, {}, 7.85],
    ['right-angle band, balls of 4 mm', angles, {}, 5.65],
  ] as const)('%s', (_, recipe, params, mm) => {
    expect(Math.abs(pitch(recipe, params) / mm - 1)).toBeLessThan(0.02)
  })
  it('of right-angle work in round beads is √2 (l + d) / 2', () => {
    for (const size of ['ball-2-mm', 'ball-3-mm', 'ball-6-mm']) {
      const { l, d } = requireSpec(size)
      expect(Math.abs(pitch(angles, {}, size) / ((Math.SQRT2 * (l + d)) / 2) - 1), size).toBeLessThan(0.02)
    }
    expect(Math.abs(pitch(angles, {}, 'round-8') / 3.55 - 1)).toBeLessThan(0.02)
  })
  it('of a ladder is as long as the beads at its side, where these are longer than a rung is thick', () => {
    for (const s of [3, 4, 5, 7]) expect(Math.abs(pitch(crossing, { s }) / (s * 2.1) - 1), `${s}`).toBeLessThan(0.02)
  })
  it('does not fall when a stem grows', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 11 }), fc.integer({ min: 5, max: 12 }), (s, p) => {
        expect(pitch(flower, { s: s + 1, p })).toBeGreaterThan(pitch(flower, { s, p }))
      }),
      { numRuns: 12 },
    )
  })
  it('has settled, and grows with the size of the beads', () => {
    for (const recipe of SAMPLES) {
      const { settled, pitchMm } = cellOf(recipe)
      expect([recipe.id, settled]).toEqual([recipe.id, true])
      expect(pitchMm).toBeGreaterThan(0.5)
    }
    expect(pitch(angles, {}, 'ball-6-mm')).toBeGreaterThan(1.8 * pitch(angles, {}, 'ball-3-mm'))
  })
})

describe('the picture', () => {
  it('is the same to the bit, whoever asks', () => {
    for (const recipe of [flower, lozenge]) {
      const { problem } = chainFor(recipe)
      const sent = JSON.parse(JSON.stringify(problem)) as ChainProblem
      expect(JSON.stringify(solveChain(problem))).toBe(JSON.stringify(solveChain(sent)))
    }
  })
  it('lets no bead lie in another but where they ride on each other', () => {
    for (const recipe of [flower, lozenge, crossing, angles]) {
      const { problem } = chainFor(recipe)
      const { hard, riding } = overlaps(problem.cells[0]!, answerTo(problem).cells[0]!)
      expect(hard, recipe.id).toBeLessThan(0.05)
      expect(riding, recipe.id).toBeLessThan(0.05)
    }
  })
  it('of what is symmetric is symmetric to a millionth of a mm', () => {
    for (const recipe of [lozenge, crossing, angles]) {
      const { mirror, poses } = cellOf(recipe)
      expect(mirror, recipe.id).not.toBeNull()
      mirror!.forEach((j, i) => {
        const [p, q] = [poseIn(poses, i), poseIn(poses, j)]
        expect(p.x).toBeCloseTo(q.x, 6)
        expect(p.y).toBeCloseTo(-q.y, 6)
        // The image of its hole, read either way.
        expect(Math.abs(Math.sin(wrapped(p.turn + q.turn)))).toBeLessThan(1e-6)
      })
    }
    // Seven petals, four before and three behind, are not.
    expect(cellOf(flower).mirror).toBeNull()
  })
  it('closes petals round their heart, and leans two-hole beads about their centre', () => {
    const own = runOf(flower, {}, LONG)
    const laid = layRun(own, flower)!
    const of = (name: string) =>
      own.run.nodes.filter((n) => n.motif === 5 && n.name === name).map((n) => laid.poses[n.id]!)
    const [heart] = of('centre')
    const far = of('petal').map((p) => Math.hypot(p.x - heart!.x, p.y - heart!.y))
    expect(Math.max(...far)).toBeLessThan(4)
    const almonds = runOf(lozenge, {}, LONG)
    const lies = layRun(almonds, lozenge)!
    const top = almonds.run.nodes.filter((n) => n.motif === 5 && n.name === 'top').map((n) => lies.poses[n.id]!)
    const low = almonds.run.nodes.filter((n) => n.motif === 5 && n.name === 'low').map((n) => lies.poses[n.id]!)
    expect(new Set(top.map((p) => Math.sign(p.y))).size).toBe(1)
    expect(Math.sign(low[0]!.y)).toBe(-Math.sign(top[0]!.y))
    // The first and the last of them lean to different sides, as round a centre.
    const lean = wrapped(2 * (top[0]!.turn - top[2]!.turn)) / 2
    expect(Math.abs(lean)).toBeGreaterThan(0.3)
  })
  it('moves every motif on by the pitch, and turns it over where it is worked to and fro', () => {
    const own = runOf(flower, {}, 30)
    const laid = layRun(own, flower)!
    const at = (m: number) => laid.poses[own.run.nodes.find((n) => n.motif === m && n.name === 'centre')!.id]!
    expect(at(20).x - at(3).x).toBeCloseTo(17 * laid.pitchMm, 6)
    expect(at(20).y).toBeCloseTo(at(3).y, 9)
    const band = runOf(angles, {}, 20)
    const rows = layRun(band, angles)!
    const low = (m: number) => rows.poses[band.run.nodes.find((n) => n.motif === m && n.name === 'low')!.id]!
    expect(low(9).y).toBeCloseTo(-low(8).y, 9)
    expect(low(9).x - low(8).x).toBeCloseTo(rows.pitchMm, 6)
  })
  it('places every bead of few motifs as of many, ends outside them', () => {
    for (const recipe of [flower, lozenge, crossing, angles])
      for (const n of [1, 2, 3, 5]) {
        const own = runOf(recipe, {}, n)
        const laid = layRun(own, recipe, runOf(recipe, {}, LONG + (n % 2)))!
        for (const node of own.run.nodes) expect(laid.poses[node.id], `${recipe.id} ${n} ${node.name}`).not.toBeNull()
        expect(laid.pitchMm).toBeCloseTo(pitch(recipe), 6)
      }
    const own = runOf(lozenge, {}, 6)
    const laid = layRun(own, lozenge)!
    const xs = (motif: number) => own.run.nodes.filter((n) => n.motif === motif).map((n) => laid.poses[n.id]!.x)
    expect(Math.max(...xs(-1))).toBeLessThan(Math.max(...xs(0)))
    expect(Math.min(...xs(6))).toBeGreaterThan(Math.max(...xs(4)))
  })
  it('finishes over random parameters, and every bridge of a sound recipe is short', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(flower, lozenge, crossing, angles),
        fc.array(fc.nat({ max: 1000 }), { minLength: 3, maxLength: 3 }),
        (recipe, picks) => {
          const params = Object.fromEntries(
            recipe.params.map(({ id, least, most }, k) => {
              const value = least + (picks[k]! % (Math.min(most, 9) - least + 1))
              return [id, id === 'w' && recipe === angles ? value - 1 + (value % 2) : value]
            }),
          )
          const { problem } = chainFor(recipe, params)
          const { pitchMm, overlapMm } = answerTo(problem).cells[0]!
          expect(Number.isFinite(pitchMm) && pitchMm > 1).toBe(true)
          expect(overlapMm).toBeLessThan(0.05)
        },
      ),
      { numRuns: 15 },
    )
    for (const recipe of [flower, lozenge, crossing, angles]) {
      const own = runOf(recipe, {}, LONG)
      expect(judged(own.run, layRun(own, recipe)!), recipe.id).toEqual([])
    }
  })
})

describe('what is too much', () => {
  it('is not laid: a motif of too many beads, or too many beads in motifs that grow', () => {
    const ring = (count: string | number): Recipe => ({
      ...flower,
      start: [],
      motif: [{ do: 'pick', items: [{ slot: 'stem', hole: 'a', count }] }],
      end: [],
    })
    const laid = (count: string | number, n: number) => layRun(runOf(ring(count), {}, n), ring(count))
    expect(laid(60, LONG)).not.toBeNull()
    expect(laid(241, LONG)).toBeNull()
    expect(laid('5+m', 10)).not.toBeNull()
    expect(laid('20+m', 20)).toBeNull()
  })
})

describe('what was laid', () => {
  it('is kept by what it hangs on: colours and counts are not among it', () => {
    const [a, b] = [chainFor(flower, {}, 20).problem, chainFor(flower, {}, 33).problem]
    answerTo(a)
    expect(isKept(b)).toBe(true)
    expect(isKept(chainFor(flower, { s: 17 }, 20).problem)).toBe(false)
    const asked = chainFor(flower, { s: 18 }, 20).problem
    const answer = { ...answerTo(a), start: [] }
    keepAnswer(asked, answer)
    expect(answerTo(asked)).toBe(answer)
  })
  it('tells passes the wrong way round and thread that would show, in the picture from before', () => {
    const own = runOf(flower, {}, LONG)
    const laid = layRun(own, flower)!
    const turned: Recipe = {
      ...flower,
      motif: flower.motif.map((step) =>
        step.do === 'pass' ? { ...step, refs: step.refs.map((ref) => ({ ...ref, way: 'on' as const })) } : step,
      ),
    }
    const found = judged(runOf(turned, {}, LONG).run, laid)
    expect(found.map(({ code }) => code)).toContain('wrong-end')
    expect(found.every(({ path }) => path.startsWith('motif/'))).toBe(true)
    const far: Recipe = {
      ...flower,
      motif: [...flower.motif, { do: 'pass', refs: [{ bead: 'stem', of: 'this', at: 0, hole: 'a', way: 'on' }] }],
    }
    const said = judged(runOf(far, {}, LONG).run, laid)
    expect(said.map(({ code }) => code)).toContain('far')
    // Said once for each step, with every motif in which it is so.
    expect(new Set(said.map(({ code, path }) => `${code} ${path}`)).size).toBe(said.length)
    expect(Math.max(...said.map(({ motifs }) => motifs.length))).toBeGreaterThan(1)
    for (const { motifs } of said) expect(motifs.toSorted((a, b) => a - b)).toEqual([...new Set(motifs)])
  })
  it('knows where holes end', () => {
    const own = runOf(lozenge, {}, LONG)
    const laid = layRun(own, lozenge)!
    const leaf = own.run.nodes.find((n) => n.motif === 4 && n.name === 'top')!
    const ends = [0, 1].flatMap((hole) =>
      ([0, 1] as const).map((end) => portPoint(laid, own.run.nodes, { node: leaf.id, hole, end })!),
    )
    const { l, spacing } = leaf.spec!
    expect(Math.hypot(ends[0]!.x - ends[1]!.x, ends[0]!.y - ends[1]!.y)).toBeCloseTo(l, 9)
    expect(Math.hypot(ends[0]!.x - ends[2]!.x, ends[0]!.y - ends[2]!.y)).toBeCloseTo(spacing!, 9)
    expect(posesOfChain(chainFor(lozenge), answerTo(chainFor(lozenge).problem))).toHaveLength(own.run.nodes.length)
  })
})
