import { linksIn } from '../hang/chain'
import type { AbovePart } from './begins'

/** A necklace in the middle of the usual ones, its clasp, and a link of its chain, mm (common practice: 18 in). */
export const NECKLACE_MM = 457
const CLASP_MM = 11
export const LINK_MM = 2.8

const tenth = (mm: number): number => Math.round(mm * 10) / 10

/** Whole links of the usual chain. */
export const USUAL_LINKS = linksIn(NECKLACE_MM - CLASP_MM, LINK_MM)

/** A chain of so many links to begin with, and how many of them are shown. */
export const chainOf = (links: number, shown: number): AbovePart => ({
  technique: 'finding',
  name: 'Chain',
  settings: {
    ...{ kind: 'chain', pitch: LINK_MM, tall: tenth(links * LINK_MM + CLASP_MM), clasp: CLASP_MM },
    ...{ across: tenth(shown * LINK_MM), thick: 0.6, grams: 0 },
  },
  rows: [],
})

/** What is between a measure and work that hangs from the links of its chain. */
export const BY_LINKS = { name: 'Links of the chain', lengthMm: 0 } as const
