import type { IRawProperty, Parameters } from 'fast-check'
import { vi } from 'vitest'

/** Share of its cases that a law is tried on here, where it is held against thousands of mutants. */
const SHARE = 0.4
/** Cases of a law that costs so much that it is tried on fewer than a hundred anyway. */
const COSTLY = 10

/** The same cases for every mutant, so that what is noticed does not hang on chance. */
const SEED = 20

const casesOf = (runs: number): number => (runs < 100 ? COSTLY : Math.ceil(SHARE * runs))

/** What is noticed with fewer cases is noticed by the tests themselves, which try all. */
vi.mock('fast-check', async (original) => {
  const real = await original<typeof import('fast-check')>()
  const assert = <T>(law: IRawProperty<T>, how: Parameters<T> = {}) =>
    real.assert(law, { seed: SEED, ...how, numRuns: casesOf(how.numRuns ?? 100) })
  return { ...real, default: { ...real.default, assert }, assert }
})
