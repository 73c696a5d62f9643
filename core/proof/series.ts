/**
 * A series of counts and its own rule: lengths of strands, beads of rungs, runs from an edge. The terms that break the
 * simplest rule that all others follow. Pure; counts in and out.
 */
export interface Break {
  readonly at: number
  readonly is: number
  readonly expected: number
  /** The rule that the others follow, in words. */
  readonly rule: string
}

interface Model {
  readonly rule: string
  /** Numbers that it takes from the series itself. */
  readonly free: number
  /** What it costs beyond these, so that of two rules the plainer is taken. */
  readonly ask: number
  /** What it expects of every term, once for every way to take its numbers; null where it says nothing. */
  fits(v: readonly number[]): (number | null)[][]
}

const each = (n: number, f: (i: number) => number | null) => Array.from({ length: n }, (_, i) => f(i))

const MIRROR = 'the same from both sides'

const MODELS: readonly Model[] = [
  { rule: 'all the same', free: 1, ask: 0, fits: (v) => [...new Set(v)].map((x) => each(v.length, () => x)) },
  {
    rule: 'the same step each time',
    free: 2,
    ask: 1,
    fits: (v) =>
      v.flatMap((first, i) =>
        i + 1 < v.length ? [each(v.length, (k) => first + (k - i) * (v[i + 1]! - first))] : [],
      ),
  },
  {
    rule: 'up to a turn and back by the same step',
    free: 3,
    ask: 1,
    fits: (v) =>
      v.flatMap((top, m) =>
        [-3, -2, -1, 1, 2, 3].flatMap((d) => [
          each(v.length, (k) => top - d * Math.abs(k - m)),
          // Two terms at the turn.
          each(v.length, (k) => top - d * (k <= m ? m - k : k - m - 1)),
        ]),
      ),
  },
  {
    rule: 'comes again',
    free: 2,
    ask: 2,
    fits: (v) =>
      [2, 3, 4]
        .filter((p) => v.length >= 3 * p)
        .map((p) =>
          each(v.length, (k) => {
            const alike = v.filter((_, i) => i % p === k % p).sort((a, b) => a - b)
            return alike[alike.length >> 1]!
          }),
        ),
  },
  {
    rule: MIRROR,
    free: 0,
    ask: 36,
    fits: (v) => [each(v.length, (k) => (2 * k === v.length - 1 ? null : v[v.length - 1 - k]!))],
  },
]

/** Terms under which nothing is said; share of the terms that must follow; how far off a term may be. */
const LEAST = 5
const AGREE = 0.6
const FAR = 3
/** From so many terms on, two may break it. */
const LONG = 12
const BREAK_COST = 3

/**
 * Terms that break the simplest rule which all others follow, at least two of them beyond what the rule takes from the
 * series; none where no rule does, or where all follow one.
 */
export function seriesBreaks(v: readonly number[]): Break[] {
  if (v.length < LEAST) return []
  let best: { readonly cost: number; readonly mirror: boolean; readonly breaks: Break[] } | null = null
  for (const { rule, free, ask, fits } of MODELS)
    for (const expected of fits(v)) {
      const mirror = rule === MIRROR
      const breaks: Break[] = []
      let said = 0
      expected.forEach((x, at) => {
        if (x === null) return
        said++
        if (x !== v[at]) breaks.push({ at, is: v[at]!, expected: x, rule })
      })
      // A mirror names both of a pair: one mistake.
      const wrong = mirror ? breaks.length / 2 : breaks.length
      const follow = said - free - breaks.length
      if (wrong > 0 && follow < Math.max(2, AGREE * (said - free) - (mirror ? 1 : 0) - 1e-9)) continue
      const cost = free + ask * 0.1 + BREAK_COST * wrong
      if (best === null || cost < best.cost) best = { cost, mirror, breaks }
    }
  if (best === null) return []
  const { breaks, mirror } = best
  const most = mirror || v.length >= LONG ? 2 : 1
  return breaks.length <= most && breaks.every((b) => Math.abs(b.is - b.expected) <= FAR) ? breaks : []
}
