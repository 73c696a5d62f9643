import type { Technique } from '#core/technique/technique'
import { fanTechnique } from './fan'
import { rungsTechnique } from './rungs'

/** What stands in the place of core/technique/guests.ts where the house is checked with a technique of tests. */
export const GUESTS: readonly Technique[] = [fanTechnique, rungsTechnique]
