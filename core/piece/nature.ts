import type { DiscWork, RopeSurface } from '../technique/disc'
import { techniqueOf, type Part } from './piece'

/**
 * What of a part’s technique much of Weben asks: never which one it is, but what follows from it. A new technique
 * answers in its own file, and nothing here changes.
 */

/** Whether its places are counted and told one by one; else they are what shows of something that runs through. */
export const isCounted = (part: Part): boolean => techniqueOf(part).material.counted

/** Whether it is made of beads (or cords): a finding is not. */
export const isMade = (part: Part): boolean => techniqueOf(part).holds === undefined

/** The parts of a piece that are made; what is bought besides holds them. */
export const madeParts = (parts: readonly Part[]): readonly Part[] => parts.filter(isMade)

/** Whether it closes round on itself: its last column lies beside its first. */
export const isRound = (part: Part): boolean => techniqueOf(part).round

/** The disc that it is worked on, with strands that are loaded before it begins; null where nothing is loaded. */
export const discOf = (part: Part): DiscWork | null => techniqueOf(part).disc ?? null

/** Its surface as a rope, where that is known in closed form. */
export const ropeOf = (part: Part): RopeSurface | null => discOf(part)?.surface(part.settings) ?? null

/** What its lines are called where there are many: “rows”. */
export const linesWord = (part: Part): string => `${techniqueOf(part).words.line}s`
