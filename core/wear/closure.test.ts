import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { closureName, closureOf, letOutMm, sameClosure, settingsOf, usualClosure, type Closure } from './closure'

const anyClosure: fc.Arbitrary<Closure> = fc
  .record({
    extenderMm: fc.constantFrom(0, 2, 3, 25),
    openings: fc.constantFrom(1, 2, 3, 4),
    openingStepMm: fc.constantFrom(0, 8, 12),
  })
  .map((over) => ({ ...usualClosure('button'), ...over }))

describe('a closure', () => {
  it('is another one if anything of it is', () => {
    const other: Closure = {
      kind: 'hook',
      name: 'Mine',
      lengthMm: 1,
      overlapMm: 2,
      extenderMm: 3,
      openings: 4,
      openingStepMm: 5,
      loop: 'front',
    }
    const one = usualClosure('toggle')
    expect(sameClosure(one, { ...one })).toBe(true)
    for (const field of Object.keys(other) as (keyof Closure)[])
      expect(sameClosure(one, { ...one, [field]: other[field] }), field).toBe(false)
  })
  it('has the name that its maker gave it, or that of its kind', () => {
    expect(closureName(usualClosure('hook'))).toBe(closureOf('hook').name)
    expect(closureName({ kind: 'hook', name: 'Silver hook' })).toBe('Silver hook')
  })
  it('closes at the place nearest to what is wanted, of all its openings with all of its chain', () => {
    fc.assert(
      fc.property(anyClosure, fc.integer({ min: -10, max: 120 }), (closure, wanted) => {
        const more = wanted / 2
        const near = (from: number) => Math.min(from + closure.extenderMm, Math.max(from, more))
        const all = Array.from({ length: closure.openings }, (_, k) => near(k * closure.openingStepMm))
        const at = settingsOf(closure, more)
        expect(Math.abs(at - more)).toBeCloseTo(Math.min(...all.map((place) => Math.abs(place - more))), 9)
        // and it is one of them, where two are as near
        expect(all.some((place) => Math.abs(place - at) < 1e-9)).toBe(true)
        expect(at).toBeLessThanOrEqual(letOutMm(closure))
      }),
      { numRuns: 400 },
    )
  })
})
