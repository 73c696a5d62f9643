import { describe, expect, it } from 'vitest'
import { flower } from '../../tests/fixture/recipe'
import { ownRecipe } from '../../tests/fixture/own-recipe'
import { part, piece } from '../../tests/fixture/piece'
import { answerTo } from '../layout/keep'
import { valueOf } from '../problem'
import { awaited, canMove } from './awaited'
import { layingSteps, setStep } from './edit'
import { applySteps } from './step'

/** Flowers of so many stem beads, which nothing else lays. */
const flowers = (s: number) =>
  ownRecipe(flower, { motif: Array(s + 8).fill(1), end: Array(s).fill(1) }, { times: 6, params: { s } })

describe('what waits for its layout', () => {
  it('is asked for once, and no more when it is answered; colours ask nothing', () => {
    const p = flowers(13)
    const open = awaited(p)
    expect(open.length).toBeGreaterThan(0)
    for (const question of open) answerTo(question)
    expect(awaited(p)).toEqual([])
    const steps = layingSteps(p.parts[0]!, new Map([[0, 2]]))
    expect(canMove(p, steps)).toBe(false)
    expect(awaited(valueOf(applySteps(p, steps)))).toEqual([])
  })
  it('is looked for only where something can be laid anew', () => {
    const grid = piece({ parts: [part()] })
    expect(canMove(grid, [setStep(grid, ['name'], 'Another')])).toBe(false)
    const p = flowers(14)
    expect(canMove(p, [setStep(p, ['name'], 'Another')])).toBe(true)
    expect(awaited(grid)).toEqual([])
  })
})
