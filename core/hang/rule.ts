import { z } from 'zod'
import { levelled } from './level'

/**
 * Strands by rule: zones from the top, each a count of beads that stays, grows from strand to strand, or reaches down
 * to a level line. Lengths in mm.
 */

/** Shapes of the lower edge: how long strands are from the left to the right. */
export const EDGES = ['point', 'arc', 'slope', 'straight', 'wave'] as const
export type Edge = (typeof EDGES)[number]

/** How the count of a zone follows the edge. */
export const GROWTHS = ['keep', 'step', 'to', 'level'] as const
export type Growth = (typeof GROWTHS)[number]

export const RULE_LIMITS = { strands: 200, zones: 12, zone: 300, step: 20, end: 24, sequence: 24, waves: 20 } as const

const count = z.int().min(0).max(RULE_LIMITS.zone)
const sequence = z.array(z.int().min(1).max(65534)).max(RULE_LIMITS.sequence)

const zoneSchema = z.strictObject({
  beads: sequence.min(1).describe('Tray numbers, in turn'),
  along: z
    .enum(['strand', 'row'])
    .default('strand')
    .describe('Whether the beads take turns down each strand, or from strand to strand'),
  grow: z.enum(GROWTHS).default('keep'),
  from: count.describe('Beads of the shortest strand'),
  step: z.int().min(-RULE_LIMITS.step).max(RULE_LIMITS.step).default(0).describe('Beads more at each step'),
  every: z.int().min(1).max(RULE_LIMITS.step).default(1).describe('Strands to a step'),
  to: count.default(0).describe('Beads of the longest strand, reached evenly'),
  levelMm: z.number().min(0).max(400).default(0).describe('Level line that it reaches down to, below the top'),
  trim: z
    .int()
    .min(0)
    .max(65534)
    .default(0)
    .describe('A smaller bead of which a few end the zone where that comes nearer to its line; 0 for none'),
})

export const strandRuleSchema = z
  .strictObject({
    strands: z.int().min(1).max(RULE_LIMITS.strands),
    edge: z.enum(EDGES).default('point'),
    waves: z.int().min(1).max(RULE_LIMITS.waves).default(1),
    zones: z.array(zoneSchema).min(1).max(RULE_LIMITS.zones),
    end: z
      .array(z.int().min(1).max(65534))
      .max(RULE_LIMITS.end)
      .describe('What the thread turns round at the end of each strand'),
  })
  .describe('The rule that strands were made by')

export type StrandRule = Readonly<z.infer<typeof strandRuleSchema>>
export type Zone = StrandRule['zones'][number]

/** Levels that an edge has: steps from the shortest strand to the longest, and one. */
export function levelsOf(edge: Edge, strands: number, waves = 1): number {
  const half = Math.ceil(strands / 2)
  if (edge === 'straight') return 1
  if (edge === 'slope') return strands
  return edge === 'wave' ? Math.max(1, Math.round((strands - 1) / (2 * waves)) + 1) : half
}

/** How far a strand is from the shortest to the longest, 0 to 1. */
export function shareOf(edge: Edge, i: number, strands: number, waves = 1): number {
  const far = Math.min(i, strands - 1 - i)
  const half = Math.max(1, Math.ceil(strands / 2) - 1)
  switch (edge) {
    case 'straight':
      return 0
    case 'slope':
      return strands === 1 ? 0 : i / (strands - 1)
    case 'point':
      return far / half
    case 'arc':
      return Math.sqrt(1 - (1 - far / half) ** 2)
    case 'wave':
      return strands === 1 ? 0 : (1 - Math.cos((2 * Math.PI * waves * i) / (strands - 1))) / 2
  }
}

/** What a strand is made with: where it begins, below the highest one, and how long its beads are. */
export interface StrandGround {
  readonly startMm: number
  lengthOf(number: number): number
}

const held = (n: number): number => Math.max(0, Math.min(RULE_LIMITS.zone, n))

/** Trim beads that end a zone at most. */
const MOST_TRIM = 4

/** Mean length of the beads of a zone, mm. */
const meanOf = ({ beads }: Zone, { lengthOf }: StrandGround): number =>
  beads.reduce((sum, n) => sum + lengthOf(n), 0) / beads.length

/** Beads of a zone that reaches down to a line, and of its trim: those that come nearest, by the fewest trim beads. */
function levelIn(
  zone: Zone,
  aboveMm: number,
  ground: StrandGround,
): { readonly count: number; readonly trim: number } {
  const room = zone.levelMm - ground.startMm - aboveMm
  const fillerMm = meanOf(zone, ground)
  let best = { count: held(Math.round(room / fillerMm)), trim: 0 }
  if (zone.trim === 0) return best
  const off = (count: number, trim: number) => Math.abs(room - count * fillerMm - trim * ground.lengthOf(zone.trim))
  for (let trim = 1; trim <= MOST_TRIM; trim++) {
    const count = held(Math.round((room - trim * ground.lengthOf(zone.trim)) / fillerMm))
    if (off(count, trim) < off(best.count, best.trim) - 1e-9) best = { count, trim }
  }
  return best
}

/** Beads of a zone in strand i, its trim left out; of one that grows to a level, by what is above it already. */
function countIn(zone: Zone, i: number, rule: StrandRule, aboveMm: number, ground: StrandGround): number {
  const share = shareOf(rule.edge, i, rule.strands, rule.waves)
  switch (zone.grow) {
    case 'keep':
      return zone.from
    case 'step': {
      const level = Math.round(share * (levelsOf(rule.edge, rule.strands, rule.waves) - 1))
      return held(zone.from + zone.step * Math.floor(level / zone.every))
    }
    case 'to':
      return zone.from + Math.floor(share * (zone.to - zone.from) + 0.5)
    case 'level':
      return levelIn(zone, aboveMm, ground).count
  }
}

/** The beads of each zone of strand i, from the top. */
function zonesIn(rule: StrandRule, i: number, ground: StrandGround): number[][] {
  let above = 0
  return rule.zones.map((zone) => {
    const count = countIn(zone, i, rule, above, ground)
    const trim = zone.grow === 'level' ? levelIn(zone, above, ground).trim : 0
    const beads = [
      ...Array.from({ length: count }, (_, k) => beadOfZone(zone, mirrored(rule, i), k)),
      ...Array<number>(trim).fill(zone.trim),
    ]
    for (const number of beads) above += ground.lengthOf(number)
    return beads
  })
}

/** How many beads each zone of strand i has. */
export const zoneCounts = (rule: StrandRule, i: number, ground: StrandGround): number[] =>
  zonesIn(rule, i, ground).map((beads) => beads.length)

/**
 * The line near its own at which strands end most level by a zone that reaches down to one, mm below the top;
 * `grounds` of all strands. Its own where the zone reaches to none.
 */
export function bestLine(rule: StrandRule, zone: number, grounds: readonly StrandGround[]): number {
  const own = rule.zones[zone]
  if (own?.grow !== 'level' || grounds.length === 0) return own?.levelMm ?? 0
  const fillerMm = meanOf(own, grounds[0]!)
  const from = grounds.map(
    (ground, i) =>
      ground.startMm +
      zonesIn({ ...rule, zones: rule.zones.slice(0, zone) }, i, ground)
        .flat()
        .reduce((sum, number) => sum + ground.lengthOf(number), 0),
  )
  return levelled({
    ...{ from, fillerMm, lineMm: own.levelMm, giveMm: fillerMm / 2 },
    trimMm: own.trim === 0 ? 0 : grounds[0]!.lengthOf(own.trim),
    mostTrim: MOST_TRIM,
  }).lineMm
}

const beadOfZone = ({ beads, along }: Zone, i: number, k: number): number =>
  beads[(along === 'strand' ? k : i) % beads.length]!

/** Strand i as the rule has it: tray numbers from the top to what the thread turns round. */
export const strandByRule = (rule: StrandRule, i: number, ground: StrandGround): number[] => [
  ...zonesIn(rule, i, ground).flat(),
  ...rule.end,
]

/** Strands that lie alike from both sides take turns from both sides too. */
const mirrored = ({ edge, strands }: StrandRule, i: number): number =>
  edge === 'slope' ? i : Math.min(i, strands - 1 - i)

/** Longest counts next to one that is wanted with which a zone that grows evenly has equal steps. */
export function evenLongest({ from, to }: Pick<Zone, 'from' | 'to'>, levels: number): number[] {
  if (levels < 2) return [to]
  const step = (to - from) / (levels - 1)
  return [...new Set([Math.floor(step), Math.ceil(step)])].map((each) => from + each * (levels - 1))
}
