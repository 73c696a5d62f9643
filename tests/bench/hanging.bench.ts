import { expect, test } from '@playwright/test'
import { beginPiece } from '#core/begin/begin'
import { choicesFor } from '#core/fit/hang-choices'
import { fitOf } from '#core/fit/reckon'
import type { StrandRule } from '#core/hang/rule'
import { fittedPart, rowsOf, type Piece } from '#core/piece/piece'
import { applySteps } from '#core/piece/step'
import { ruleSteps } from '#core/piece/strands'
import { valueOf } from '#core/problem'
import { cutList } from '#core/supply/thread'
import { tallyPiece, totalOf } from '#core/tally/tally'
import { requireTechnique } from '#core/technique/registry'
import { usualClosure } from '#core/wear/closure'
import { best, loop } from './loop'

/** A fringe that is changed by its rule, in Node, against a fixed loop in the same run. */

const ruleOf = (piece: Piece): StrandRule => {
  const part = fittedPart(piece)
  return requireTechnique(part.technique).strands!.plan(part.plan).rule!
}
const byRule = (piece: Piece, change: (rule: StrandRule) => StrandRule): Piece =>
  valueOf(applySteps(piece, ruleSteps(piece, fittedPart(piece), change(ruleOf(piece)))))
/** One of its zones by so many beads longer. */
const longer = (piece: Piece, zone: number, by: number): Piece =>
  byRule(piece, (rule) => ({
    ...rule,
    zones: rule.zones.map((z, k) => (k === zone ? { ...z, from: z.from + by } : z)),
  }))

const earring = beginPiece({
  ...{ kind: 'earrings', name: 'Bench', wearer: '', bodyMm: 60, easeMm: 0, widthMm: 30, technique: 'fringe' },
  ...{ hangsFrom: 'row', spec: 'round-11', motif: 'plain', start: 'left', closure: usualClosure('ear-wire') },
})
const curtain = longer(
  byRule(earring, (rule) => ({ ...rule, strands: 199, zones: rule.zones.map((z) => ({ ...z, step: 0 })) })),
  2,
  140,
)

test('a zone that grows takes strands, drop and thread with it', () => {
  const fixed = best(5, loop)
  const beads = [earring, curtain].map((p) => totalOf(tallyPiece(p)))
  expect(beads[0]).toBeGreaterThan(400)
  expect(beads[1]).toBeGreaterThan(20_000)
  for (const [piece, goal] of [
    [earring, 0.5],
    [curtain, 8],
  ] as const) {
    let by = 0
    const took = best(4, () => {
      const next = longer(piece, 0, ++by)
      expect(totalOf(tallyPiece(next))).toBe(totalOf(tallyPiece(piece)) + by * rowsOf(fittedPart(piece)))
      return [fitOf(next), cutList(next)]
    })
    console.log(`${totalOf(tallyPiece(piece))} beads: ${took.toFixed(1)} ms of ${fixed.toFixed(1)}`)
    expect(took / fixed).toBeLessThan(goal)
  }
})

test('what comes near is found at once for an earring', () => {
  const fixed = best(5, loop)
  let by = 0
  const took = best(4, () => choicesFor(longer(earring, 0, ++by)))
  console.log(`choices: ${took.toFixed(1)} ms of ${fixed.toFixed(1)}`)
  expect(took / fixed).toBeLessThan(1.5)
})
