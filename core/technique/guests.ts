import type { Technique } from './technique'

/** Techniques that are not Weben's own: none. A check of the house puts one in their place and finds it everywhere. */
export const GUESTS: readonly Technique[] = []
