import { expect, test } from '@playwright/test'
import { readPieceFile, writePieceFile } from '#core/format/piece-file'
import { readRecipeText } from '#core/recipe/shorthand'
import { recipeTotals, runRecipe } from '#core/recipe/total'
import { bridgeByTouch } from '#core/recipe/measure'
import { requireSpec } from '#core/bead/spec'
import { flower, lozenge } from '../fixture/recipe'
import { ownRecipe } from '../fixture/own-recipe'
import { best, loop } from './loop'

/** Recipes that are sound and such that are not, in Node, against a fixed loop in the same run. */

const piece = ownRecipe(flower, { motif: [1, 1, 1, 1, 2, 2, 2, 2, 3, 2, 2, 2], end: [1, 1, 1, 1] }, { times: 10 })
/** The piece file with another motif, as text. */
const fileWith = (motif: unknown, times = 10): string => {
  const file = JSON.parse(writePieceFile(piece)) as { piece: { parts: { times: number; plan: { recipe: object } }[] } }
  const part = file.piece.parts[0]!
  part.times = times
  part.plan.recipe = { ...part.plan.recipe, motif }
  return JSON.stringify(file)
}
const stem = { do: 'pick', items: [{ slot: 'stem' }] }
const within = (depth: number): object =>
  depth === 0 ? stem : { do: 'each', with: `k${depth}`, times: 9, steps: [within(depth - 1)] }

const HOSTILE: readonly (readonly [string, string])[] = [
  ['nested without end', `{"format":"weben-piece","version":3,"piece":${'['.repeat(200_000)}${']'.repeat(200_000)}}`],
  ['steps in steps in steps', fileWith([within(5)])],
  ['a million turns', fileWith([{ do: 'each', with: 'k', times: 1_000_000, steps: [{ do: 'say', text: 'on' }] }])],
  ['turns of turns', fileWith([within(4)], 2000)],
  ['a million beads', fileWith([{ do: 'pick', items: [{ slot: 'stem', count: 1_000_000 }] }])],
  ['as many motifs as a file may say', fileWith([{ do: 'each', with: 'k', times: 450, steps: [stem] }], 2000)],
  ['motifs that cannot be multiplied', fileWith([{ do: 'each', with: 'k', times: '450-m*0', steps: [stem] }], 2000)],
  ['a very long list', fileWith(Array.from({ length: 20_000 }, () => stem))],
  [
    'names of nothing',
    fileWith([
      { do: 'pick', items: [{ slot: 'leaf' }] },
      { do: 'wrap', fixture: 'moon', turns: 1 },
    ]),
  ],
  ['an expression without end', fileWith([{ do: 'when', if: `${'('.repeat(59)}`, steps: [stem] }])],
]

test('what is hostile is refused with a sentence, sooner than a loop of about 50 ms', () => {
  const fixed = best(5, loop)
  for (const [what, text] of HOSTILE) {
    let says = ''
    const took = best(3, () => {
      const read = readPieceFile(text)
      says = read.ok ? '' : read.problems[0]!.says
    })
    console.log(`${what}: ${took.toFixed(1)} ms of ${fixed.toFixed(1)}; ${says.slice(0, 90)}`)
    expect(says, what).not.toBe('')
    expect(took / fixed, what).toBeLessThan(1)
  }
  const short = `recipe x "X"\n${'motif\n'.repeat(6000)}`
  expect(best(3, () => readRecipeText(short)) / fixed).toBeLessThan(1)
})

test('a thousand motifs are told sooner than by running them', () => {
  for (const recipe of [flower, lozenge]) {
    const work = { recipe, params: {}, spec: (slot: string) => requireSpec(recipe.slots[slot]!.spec) }
    const whole = best(3, () => runRecipe(work, 1000))
    const told = best(3, () => recipeTotals(work, 1000, bridgeByTouch))
    console.log(`${recipe.id}: ${told.toFixed(2)} ms of ${whole.toFixed(1)}`)
    expect(told / whole).toBeLessThan(0.1)
  }
})
