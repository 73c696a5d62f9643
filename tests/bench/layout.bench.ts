import { expect, test } from '@playwright/test'
import { requireSpec } from '#core/bead/spec'
import { chainOf } from '#core/layout/chain'
import { layRun } from '#core/layout/laid'
import type { ChainProblem } from '#core/layout/problem'
import { solveCell, solveEnd } from '#core/layout/solve'
import type { Recipe } from '#core/recipe/language'
import { runRecipe } from '#core/recipe/total'
import { TECHNIQUES } from '#core/technique/registry'
import type { Settings } from '#core/technique/technique'
import { angles, crossing, flower, lozenge } from '../fixture/recipe'

/** Laying chains from their topology, in Node, against a fixed loop in the same run: processor time, once warm. */

/** About 100 ms of plain sums: the goals are 1.5 of it up to 12 beads a motif, 4 up to 60. */
function loop(): number {
  let sum = 0
  for (let k = 0; k < 23_000_000; k++) sum = (sum + k * 7) % 1_000_003
  return sum
}

const cpuMs = (): number => {
  const { user, system } = process.cpuUsage()
  return (user + system) / 1000
}

/** The least processor time of several goes, ms. */
function best(goes: number, work: () => unknown): number {
  let least = Infinity
  for (let k = 0; k < goes; k++) {
    const from = cpuMs()
    work()
    least = Math.min(least, cpuMs() - from)
  }
  return least
}

/** Everything anew: nothing that was kept helps. */
function solve({ cells, start, end }: ChainProblem): void {
  const answers = cells.map(solveCell)
  for (const one of [start, end]) if (one) solveEnd(one, answers[one.on]!, cells[one.on]!.glide)
}

const problemOf = (recipe: Recipe): ChainProblem => {
  const run = runRecipe({ recipe, params: {}, spec: (slot) => requireSpec(recipe.slots[slot]!.spec) }, 12)
  return chainOf({ run, n: 12 }, recipe)!.problem
}

const FIXTURES: readonly (readonly [string, ChainProblem])[] = [flower, lozenge, crossing, angles].map((recipe) => [
  recipe.name,
  problemOf(recipe),
])

/** Designs whose fields make many beads of a motif: 60 of a collar. */
const LARGE: Readonly<Record<string, Settings>> = { 'netted-collar': { deep: 3, arc: 4 } }

/** The shipped designs as they are begun: the question of a dozen motifs. */
const SHIPPED: readonly (readonly [string, ChainProblem])[] = [
  ...TECHNIQUES.map((t) => [t, {}] as const),
  ...TECHNIQUES.flatMap((t) => (LARGE[t.id] ? [[t, LARGE[t.id]!] as const] : [])),
].flatMap(([t, own]) => {
  if (!t.awaits || !t.first) return []
  const settings = t.settings.parse(own)
  const work = {
    columns: 1,
    rows: 14,
    settings,
    bead: requireSpec(t.material.usualSpec),
    ...(t.plan ? { plan: t.plan.parse({}) } : {}),
  }
  const [question] = t.awaits(work)
  return question ? [[t.name, question] as const] : []
})

test('a motif is laid with its ends within its time, whatever is worked', () => {
  expect(SHIPPED.length).toBeGreaterThan(5)
  const fixed = best(5, loop)
  for (const [name, problem] of [...FIXTURES, ...SHIPPED]) {
    const beads = problem.cells.reduce((sum, { outlines }) => sum + outlines.length, 0)
    solve(problem)
    const ratio = best(4, () => solve(problem)) / fixed
    console.log(`${name}: ${beads} beads, ${ratio.toFixed(2)} of the loop of ${fixed.toFixed(0)} ms`)
    expect(ratio, name).toBeLessThan(beads <= 12 ? 1.5 : 4)
  }
})

test('two thousand motifs are placed sooner than the loop', () => {
  const run = runRecipe({ recipe: flower, params: {}, spec: (slot) => requireSpec(flower.slots[slot]!.spec) }, 2000)
  layRun({ run, n: 2000 }, flower)
  const ratio = best(3, () => layRun({ run, n: 2000 }, flower)) / best(5, loop)
  console.log(`2000 motifs placed: ${ratio.toFixed(2)} of the loop`)
  expect(ratio).toBeLessThan(2)
})
