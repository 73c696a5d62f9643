/**
 * What the lists of strung work follow by themselves, and the beads that break it: a list that comes again along it,
 * that reads the same from both ends, or whose halves are alike; and lines that come again one after the other. For
 * work that lies on no lattice, where the laws of the field (odd/) do not reach.
 */

/** A bead of a line, and what the law asks for there. */
export interface OddBead {
  readonly line: number
  readonly c: number
  readonly expected: number
}

export interface OddInLine {
  readonly law: 'along' | 'mirror' | 'halves' | 'across'
  /** After how many beads, or lines, it comes again; 0 of pairs. */
  readonly step: number
  /** Of a pair both, each with what the other is; nobody knows which is right. */
  readonly beads: readonly OddBead[]
  /** Places that say so. */
  readonly witnesses: number
}

type Line = ArrayLike<number>

/** Lines, at least, for a law across them, and copies of what comes again. */
const LEAST = { lines: 6, copies: 4 } as const
/** Mistakes that a line, or all lines together, may hold: more of them are a design. */
const MOST_BREAKS = 2
/** Places like it, at least, for what breaks a law to be a mistake. */
const WITNESSES = 3
/** Periods that are looked for, beads or lines. */
const MOST_STEP = 60
/** Share of the lines that are as long as each other, for those to be the work. */
const MOSTLY = 0.8
/** How likely chance may make a law as good as one that is believed, of all that are tried. */
const CHANCE = 3e-3

/** How likely two beads of these lists agree by chance. */
function agreement(lines: readonly Line[]): number {
  const counts = new Map<number, number>()
  let all = 0
  for (const line of lines)
    for (let c = 0; c < line.length; c++) {
      counts.set(line[c]!, (counts.get(line[c]!) ?? 0) + 1)
      all++
    }
  return [...counts.values()].reduce((sum, n) => sum + (n / all) ** 2, 0)
}

/** How likely at most so many of all pairs differ by chance (binomial distribution). */
export function byChance(pairs: number, differ: number, alike: number): number {
  let term = alike ** pairs
  let sum = term
  for (let k = 0; k < differ; k++) {
    term *= ((pairs - k) / (k + 1)) * ((1 - alike) / alike)
    sum += term
  }
  return sum
}

/** What is meant at the ends of a list: a first or last bead of its own, as one that turns. */
const isEnd = (line: Line, c: number): boolean => c === 0 || c === line.length - 1

interface Tried extends OddInLine {
  readonly chance: number
}

/** The commonest of some numbers and how often it is there. */
function commonest(numbers: readonly number[]): { readonly number: number; readonly count: number } {
  const counts = new Map<number, number>()
  let best = { number: numbers[0]!, count: 0 }
  for (const number of numbers) {
    const count = (counts.get(number) ?? 0) + 1
    counts.set(number, count)
    if (count > best.count) best = { number, count }
  }
  return best
}

/** A period of a list with the beads that break it; null where it has none. */
function along(line: Line, r: number, step: number, alike: number): Tried | null {
  const pairs = line.length - step
  let differ = 0
  // A bead breaks at most two pairs; the first and the last of the list one each.
  for (let c = 0; c < pairs; c++) if (line[c] !== line[c + step] && ++differ > 2 * MOST_BREAKS + 2) return null
  const beads: OddBead[] = []
  let witnesses = Infinity
  for (let q = 0; q < step; q++) {
    const own: number[] = []
    for (let c = q; c < line.length; c += step) if (!isEnd(line, c)) own.push(c)
    if (own.length === 0) continue
    const { number, count } = commonest(own.map((c) => line[c]!))
    for (const c of own) {
      if (line[c] === number) continue
      beads.push({ line: r, c, expected: number })
      witnesses = Math.min(witnesses, count)
    }
  }
  if (beads.length > MOST_BREAKS || witnesses < WITNESSES) return null
  return { law: 'along', step, beads, witnesses, chance: byChance(pairs, beads.length, alike) }
}

/** Pairs of a list that should be alike, by where the fellow of each lies. */
function paired(line: Line, r: number, law: 'mirror' | 'halves', alike: number): Tried | null {
  const half = Math.floor(line.length / 2)
  if (law === 'halves' && line.length % 2 === 1) return null
  const fellow = (c: number) => (law === 'mirror' ? line.length - 1 - c : c + half)
  const broken: number[] = []
  for (let c = 0; c < half; c++) {
    if (line[c] !== line[fellow(c)] && !isEnd(line, c) && !isEnd(line, fellow(c))) broken.push(c)
    if (broken.length > MOST_BREAKS) return null
  }
  const alikeIn = Array.from({ length: half }, (_, c) => c).filter((c) => line[c] === line[fellow(c)])
  return {
    ...{ law, step: 0, witnesses: alikeIn.length, chance: byChance(half, half - alikeIn.length, alike) },
    beads: broken.flatMap((c) => [
      { line: r, c, expected: line[fellow(c)]! },
      { line: r, c: fellow(c), expected: line[c]! },
    ]),
  }
}

/** What breaks a single list: nothing where any law holds of all of it. */
function oddAlong(line: Line, r: number, lines: number): OddInLine[] {
  const alike = agreement([line])
  const steps = Math.min(MOST_STEP, Math.floor(line.length / LEAST.copies))
  const tried = [
    ...Array.from({ length: Math.max(0, steps - 1) }, (_, k) => along(line, r, k + 2, alike)),
    paired(line, r, 'mirror', alike),
    paired(line, r, 'halves', alike),
  ].flatMap((one) => (one ? [one] : []))
  const believed = tried.filter(({ law, chance }) => chance * (law === 'along' ? steps : 2) * lines <= CHANCE)
  if (believed.length === 0) return []
  // The law that names the fewest, and none where one holds throughout; one that names the bead before one of two.
  const best = believed.reduce((a, b) => (cost(b) < cost(a) ? b : a))
  if (best.law === 'along') return best.beads.map((bead) => ({ ...best, beads: [bead] }))
  return Array.from({ length: best.beads.length / 2 }, (_, k) => ({
    ...best,
    beads: best.beads.slice(2 * k, 2 * k + 2),
  }))
}
const cost = ({ law, beads }: OddInLine): number => beads.length + (law === 'along' ? 0 : 0.5)

/** Beads of all lines, at most, that are looked through across them. */
const MOST_ACROSS = 100_000

/** Beads that break a period of lines that are as long as each other, by which number is usual at each place. */
function oddAt(lines: readonly Line[], own: readonly number[], varied: readonly number[], step: number) {
  const odd: (OddBead & { readonly count: number })[] = []
  for (let q = 0; q < step; q++) {
    const fellows = own.filter((r) => r % step === q)
    for (const c of varied) {
      const { number, count } = commonest(fellows.map((r) => lines[r]![c]!))
      for (const line of fellows) if (lines[line]![c] !== number) odd.push({ line, c, expected: number, count })
    }
  }
  return odd
}

/** What breaks lines that come again one after the other, each bead as the one so many lines before. */
function oddAcross(lines: readonly Line[]): OddInLine[] {
  const { number: length } = commonest(lines.map((line) => line.length))
  const own = lines.flatMap((line, r) => (line.length === length ? [r] : []))
  if (own.length < LEAST.lines || own.length < MOSTLY * lines.length || own.length * length > MOST_ACROSS) return []
  const varied = Array.from({ length }, (_, c) => c).filter((c) => new Set(own.map((r) => lines[r]![c])).size > 1)
  if (varied.length === 0) return []
  const [first, last] = [own[0]!, own.at(-1)!]
  const alike = agreement(own.map((r) => varied.map((c) => lines[r]![c]!)))
  const steps = Math.min(MOST_STEP, Math.floor(own.length / LEAST.copies))
  const there = new Set(own)
  const differ = (r: number, s: number) => varied.filter((c) => lines[r]![c] !== lines[s]![c]).length
  for (let step = 1; step <= steps; step++) {
    const pairs = own.filter((r) => there.has(r + step))
    let unlike = 0
    // A line breaks at most two pairs; the first and the last one each.
    if (pairs.some((r) => differ(r, r + step) > 0 && ++unlike > 2 * MOST_BREAKS + 2)) continue
    const odd = oddAt(lines, own, varied, step)
    const where = [...new Set(odd.map(({ line }) => line))]
    // It begins and ends with lines of its own, has a middle of its own, or one on either side.
    const isMeant = where.every((r) => r === first || r === last || where.includes(first + last - r))
    if (where.length <= 2 && isMeant) return []
    const witnesses = odd[0]!.count
    if (where.length > 1 || odd.length > Math.max(MOST_BREAKS, length / 2) || witnesses < WITNESSES) continue
    if (step > 1) {
      const broken = pairs.reduce((sum, r) => sum + differ(r, r + step), 0)
      if (byChance(pairs.length * varied.length, broken, alike) * steps > CHANCE) continue
    }
    return [{ law: 'across', step, witnesses, beads: odd.map(({ line, c, expected }) => ({ line, c, expected })) }]
  }
  return []
}

/** Beads that break what their lines follow, along each and across all of them. */
export function oddInLines(lines: readonly Line[]): OddInLine[] {
  const across = oddAcross(lines)
  const said = new Set(across.flatMap(({ beads }) => beads.map(({ line }) => line)))
  const each = lines.flatMap((line, r) => (said.has(r) ? [] : oddAlong(line, r, lines.length)))
  // What comes at the same place of more lines than one is meant, whatever lies there: motifs take turns in colour.
  const key = ({ law, beads: [bead] }: OddInLine) => `${law} ${bead!.c}`
  const often = new Map<string, number>()
  for (const one of each) often.set(key(one), (often.get(key(one)) ?? 0) + 1)
  return [...across, ...each.filter((one) => often.get(key(one)) === 1)]
}
