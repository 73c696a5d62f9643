import { z } from 'zod'
import { linksIn } from '../../hang/chain'
import type { Settings } from '../setting'

/**
 * A bought finding that beadwork hangs on: a bar with holes, a plain bar, a hoop; or one that hangs itself: a drop, a
 * tassel; or what it is worn on: a cord, a chain. It has no beads; other parts are joined to it.
 */
export const FINDINGS = ['holes', 'bar', 'hoop', 'drop', 'tassel', 'strap', 'chain'] as const
export type FindingKind = (typeof FINDINGS)[number]

export const findingSettings = z.strictObject({
  kind: z.enum(FINDINGS).default('holes'),
  holes: z.int().min(1).max(60).default(9).describe('Holes in a row'),
  pitch: z.number().min(0.5).max(40).default(2.6).describe('From hole to hole, of a chain from link to link, mm'),
  across: z
    .number()
    .min(1)
    .max(400)
    .default(25)
    .describe('Width; of a hoop its outside diameter; of a chain as much as is shown; between two straps, mm'),
  tall: z
    .number()
    .min(0)
    .max(2000)
    .default(8)
    .describe('From its loop to where beads hang; length of what hangs; of a strap or chain the whole necklace, mm'),
  thick: z.number().min(0.2).max(20).default(1).describe('Wire or bar, mm'),
  grams: z.number().min(0).max(500).default(0.6).describe('Weight, g'),
  eye: z.enum(['flat', 'across']).default('flat').describe('Its loop lies in its face, or stands across it'),
  clasp: z.number().min(0).max(80).default(0).describe('What the clasp takes of the necklace, mm; 0: it has none'),
  strap: z.enum(['slides', 'two']).default('slides').describe('One piece that it slides on, or one to each side'),
  links: z.enum(['flat', 'turned']).default('flat').describe('Links lie flat, or each stands across the one before'),
})

export type OwnFinding = z.infer<typeof findingSettings>
export const readFinding = (own: Settings): OwnFinding => findingSettings.parse(own)

/** What it is worn on, and no part of what is measured. */
export const isWornOn = ({ kind }: OwnFinding): boolean => kind === 'strap' || kind === 'chain'

/** A loop to hang it by, mm across, outside. */
export const LOOP_MM = 3
/** Metal beside the outermost hole, mm. */
export const EDGE_MM = 1.4
/** Of a strap only so much is drawn, mm. */
const DRAWN_STRAP_MM = 18
/** How high a link of a chain is, as a share of its length. */
const LINK_HIGH = 0.7

/** How wide it is, mm. */
export const findingWide = (own: OwnFinding): number =>
  own.kind === 'holes' ? (own.holes - 1) * own.pitch + 2 * EDGE_MM : own.across

/** How long it is as it is drawn, from its loop to its lower edge, mm. */
export function findingLong(own: OwnFinding): number {
  switch (own.kind) {
    case 'strap':
      return DRAWN_STRAP_MM
    case 'chain':
      return own.pitch * LINK_HIGH + own.thick
    case 'hoop':
      return Math.max(0.1, own.across + LOOP_MM - own.thick)
    default:
      return Math.max(0.1, own.tall)
  }
}

/** Whole links of a chain, its clasp left out. */
export const chainLinks = ({ tall, clasp, pitch }: OwnFinding): number =>
  Math.max(1, linksIn(Math.max(0, tall - clasp), pitch))

/** A link of a chain, from the middle of it, mm; and whether it is seen on its edge. */
export interface Link {
  readonly x: number
  readonly onEdge: boolean
}

/** Links of a chain from left to right; the middle one, or the one left of the middle, lies flat. */
export function linksOfChain(own: OwnFinding): Link[] {
  const count = chainLinks(own)
  const middle = Math.floor((count - 1) / 2)
  return Array.from({ length: count }, (_, k) => ({
    x: (k - (count - 1) / 2) * own.pitch,
    onEdge: own.links === 'turned' && (k - middle) % 2 !== 0,
  }))
}
