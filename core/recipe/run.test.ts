import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyRecipe, crossing, flower, lozenge, ribs, SAMPLES, specOf, uneven } from '../../tests/fixture/recipe'
import { walk } from '../../tests/fixture/walk'
import { requireSpec } from '../bead/spec'
import { RECIPE_LIMITS, recipeSchema, type Recipe, type Step } from './language'
import { bridgeByTouch } from './measure'
import { runSteps, unitsOf, type Node, type Run } from './run'
import {
  alikeIn,
  envOf,
  greatestPasses,
  recipeTotals,
  runRecipe,
  shortOf,
  totalsOf,
  type Passes,
  type Totals,
  type BridgeMm,
} from './total'
import { recipeWords } from './words'

const work = (recipe: Recipe, params = {}) => ({ recipe, params, spec: specOf(recipe) })
const run = (recipe: Recipe, n: number, params = {}) => runRecipe(work(recipe, params), n)
const codes = (r: Run) => r.faults.map((f) => f.code)
const nameOf = ({ motif, name, at }: Node) => `${motif} ${name} ${at}`
const withMotif = (motif: Step[], over: Partial<Recipe> = {}): Recipe => ({ ...flower, motif, ...over })
/** Sums as plain data, lengths to a thousandth of a millimetre. */
const plain = ({ beads, counts, passSums, steps, ways }: Totals) => ({
  beads,
  counts: Object.fromEntries([...counts].filter(([, n]) => n > 0).sort()),
  passes: Object.fromEntries([...passSums].filter(([, n]) => n.some((x) => x > 0)).sort()),
  steps,
  ways: [...ways].map(([by, way]) => [by, ...Object.values(way).map((mm) => Math.round(mm * 1000) / 1000)]),
})
/** Any distance that hangs on how two holes lie to each other only; where ends meet, it is that of one joint. */
const apart: BridgeMm = (from, to, nodes, far) => {
  const [a, b] = [nodes[from.node]!, nodes[to.node]!]
  return far ? 7.5 : 0.3 + Math.abs(a.at - b.at) + 5 * Math.abs(a.motif - b.motif) + (from.end === to.end ? 1.25 : 0)
}

describe('a recipe is carried out', () => {
  it('hole by hole as a walk by hand goes (an independent walk)', () => {
    fc.assert(
      fc.property(anyRecipe, fc.nat(7), (recipe, n) => {
        const done = run(recipe, n)
        const walked = walk(recipe, n)
        // What a budget cuts short is told as a fault.
        if (codes(done).some((c) => c.startsWith('too-'))) return
        expect(new Map(done.nodes.filter((b) => !b.isFixture).map((b) => [nameOf(b), b.slot]))).toEqual(walked.beads)
        const went = done.done.flatMap(({ by, goes, act }) =>
          act === 'fix'
            ? []
            : goes.map(({ node, hole, way }) => ({
                ...{ by, bead: nameOf(done.nodes[node]!) },
                ...{ hole: hole === 0 ? 'a' : 'b', way: way === 1 ? 'on' : 'back' },
              })),
        )
        expect(went).toEqual(walked.holes)
        for (const b of done.nodes)
          if (!b.isFixture)
            expect(b.passes).toEqual(
              b.passes.map((_, h) => went.filter((g) => g.bead === nameOf(b) && g.hole === 'ab'[h]).length),
            )
      }),
    )
    for (const recipe of SAMPLES)
      expect(run(recipe, 5).nodes.filter((b) => !b.isFixture)).toHaveLength(walk(recipe, 5).beads.size)
  })
  it('a flower of seven petals on four stem beads: twelve beads, two petals passed twice (by hand)', () => {
    const { totals, most } = recipeTotals(work(flower), 10, bridgeByTouch)
    expect(plain(totals)).toMatchObject({ beads: 124, counts: { stem: 44, petal: 70, centre: 10 } })
    expect(most.get('stem')![0]!.passes).toBe(1)
    expect(most.get('centre')![0]!.passes).toBe(1)
    expect(most.get('petal')![0]).toMatchObject({ passes: 2, of: { name: 'petal', at: 0 } })
    expect(
      run(flower, 1)
        .nodes.filter((b) => b.name === 'petal')
        .map((b) => b.passes[0]),
    ).toEqual([2, 1, 1, 2, 1, 1, 1])
  })
  it('a ladder of 24 rungs of three: 72 cubes, 138 seeds at its sides, 20 to the clasp (by hand)', () => {
    // The first rung is worked in the start.
    const { totals, run: short, most } = recipeTotals(work(crossing), 23, bridgeByTouch)
    expect(plain(totals)).toMatchObject({ beads: 230, counts: { rung: 72, side: 138, lead: 20 } })
    expect(plain(totals).passes).toMatchObject({ rung: [144], side: [138], lead: [20] })
    expect(most.get('rung')![0]!.passes).toBe(2)
    expect(codes(short)).toEqual([])
    // Each needle goes once through every rung and along one side of each step: by hand.
    for (const side of ['left', 'right'])
      expect(totals.ways.get(side)!.rodMm).toBeCloseTo(24 * 9 + 23 * 3 * 2.1 + 2 * 5 * 2.1, 9)
  })
  it('sixteen lozenges of two-hole beads: 96 almonds, 16 centres, 17 links, 14 in loops (by hand)', () => {
    const { totals, run: short } = recipeTotals(work(lozenge), 16, bridgeByTouch)
    expect(plain(totals).counts).toEqual({ duo: 96, centre: 16, link: 17, loop: 14 })
    expect(plain(totals).passes.duo).toEqual([96, 96])
    expect(codes(short)).toEqual([])
  })
  it('ribs: each hexagon is carried by its first hole out and its second back, wire wound at both ends', () => {
    const { totals, run: short } = recipeTotals(work(ribs), 20, bridgeByTouch)
    expect(plain(totals)).toMatchObject({ counts: { hexagon: 40, seed: 240 }, passes: { hexagon: [40, 40] } })
    expect(codes(short)).toEqual([])
    // Three turns at each end and one for each rib, round a cuff of 8 mm and a wire of 0.32.
    expect(totals.ways.get('wire')!.extraMm).toBeCloseTo(26 * Math.PI * 8.32, 9)
  })
})

/** A second thread that comes into every third motif only, and into none before the third. */
const late = withMotif(
  [
    { do: 'pick', items: [{ slot: 'petal', hole: 'a', count: 1 }] },
    {
      do: 'when',
      if: 'm%3=2',
      steps: [{ do: 'pass', refs: [{ bead: 'petal', of: 'this', at: 0, hole: 'a', way: 'on' }], by: 'second' }],
    },
  ],
  { carriers: [...flower.carriers, { id: 'second', name: 'second thread', kind: 'thread', mm: 0.15 }] },
)

describe('many motifs', () => {
  it('are multiplied to what all of them come to, without being run', () => {
    let short = 0
    fc.assert(
      fc.property(anyRecipe, fc.integer({ min: 0, max: 60 }), fc.integer({ min: 1, max: 4 }), (recipe, n, p) => {
        const one = work(recipe, { p })
        const whole = runRecipe(one, n)
        if (codes(whole).some((c) => c.startsWith('too-'))) return
        const told = recipeTotals(one, n, apart)
        expect(plain(told.totals)).toEqual(plain(totalsOf(whole, apart)))
        const most = (m: Passes) => [...m].map(([slot, list]) => [slot, list.map((one) => one.passes)])
        expect(most(told.most)).toEqual(most(greatestPasses(whole)))
        if (told.run.nodes.length < whole.nodes.length) short++
      }),
      { numRuns: 200, examples: [[late, 13, 1]] },
    )
    expect(short).toBeGreaterThan(5)
  })
  it('of the samples too, at every length', () => {
    for (const recipe of SAMPLES)
      for (const n of [0, 1, 2, 3, 5, 11, 12, 13, 14, 29, 30, 31])
        expect([n, plain(recipeTotals(work(recipe), n, apart).totals)]).toEqual([
          n,
          plain(totalsOf(run(recipe, n), apart)),
        ])
  })
  it('are alike as they read their number', () => {
    const of = (text: string) => alikeIn(withMotif([{ do: 'when', if: text, steps: [{ do: 'knot', mm: 1 }] }]), {})
    expect(of('1')).toEqual({ head: 0, period: 1, tail: 0 })
    expect(of('m%2')).toEqual({ head: 0, period: 2, tail: 0 })
    expect(of('(m+1)%3=2')).toEqual({ head: 0, period: 3, tail: 0 })
    expect(of('n%4=1')).toEqual({ head: 0, period: 4, tail: 0 })
    expect(of('m<3')).toEqual({ head: 5, period: 1, tail: 0 })
    expect(of('2>m')).toEqual({ head: 4, period: 1, tail: 0 })
    expect(of('m=n-1')).toEqual({ head: 0, period: 1, tail: 3 })
    expect(of('m%2=m%3')).toEqual({ head: 0, period: 6, tail: 0 })
    expect(of('m%p')).toEqual({ head: 0, period: 7, tail: 0 })
    // What grows with every motif is run whole.
    for (const text of ['m', 'm+1', 'm*2>3', 'm=n/2', 'm%n', 'm%99']) expect([text, of(text)]).toEqual([text, null])
    const round: Step = { do: 'pass', refs: [{ bead: 'knot', of: 'start', at: 0, hole: 'a', way: 'on' }] }
    expect(alikeIn(withMotif([round]), {})).toBeNull()
    const first: Step = { do: 'pass', refs: [{ bead: 'knot', of: 'first', at: 0, hole: 'a', way: 'on' }] }
    expect(alikeIn(withMotif([{ do: 'each', with: 'i', times: 2, steps: [first] }]), {})).toBeNull()
    // Where ends meet, the last motif or the end goes back to the first: all between them are alike.
    for (const back of [round, first]) {
      const last: Step = { do: 'when', if: 'm=n-1', steps: [back] }
      expect(alikeIn(withMotif([], { end: [back] }), {})).toEqual({ head: 0, period: 1, tail: 0 })
      expect(alikeIn(withMotif([last]), {})).toEqual({ head: 0, period: 1, tail: 3 })
      expect(alikeIn(withMotif([{ do: 'when', if: 'm<n-1', steps: [back] }]), {})).toBeNull()
      expect(alikeIn(withMotif([{ do: 'when', if: 'm%3=1', steps: [back] }]), {})).toBeNull()
    }
    expect(shortOf(uneven, {}, 1000)).toMatchObject({ period: 3 })
    expect(shortOf(uneven, {}, 1000).shown).toBeLessThan(30)
    expect((1000 - shortOf(uneven, {}, 1000).shown) % 3).toBe(0)
  })
  it('keep their parameters within bounds', () => {
    expect(envOf(flower, { p: 99, s: -4 }, 3)).toEqual(new Map(Object.entries({ n: 3, s: 0, p: 12 })))
  })
})

describe('the state after a step', () => {
  it('and all that comes after it are the whole', () => {
    fc.assert(
      fc.property(anyRecipe, fc.nat(4), fc.nat(), (recipe, n, where) => {
        const whole = run(recipe, n)
        if (whole.done.length === 0) return
        const k = where % whole.done.length
        const { nodes, ports } = whole.done[k]!
        // Beads so far are those of the steps so far; where a carrier came out is where it goes on from.
        const upTo = whole.done.slice(0, k + 1)
        const seen = new Set(upTo.flatMap((d) => d.goes.map((g) => g.node)))
        expect(nodes).toBe(seen.size)
        for (const { id } of recipe.carriers) {
          const next = whole.done.slice(k + 1).find((d) => d.by === id && d.goes.length > 0)
          const bridge = next?.spans[0]
          // A new length for every motif begins anywhere.
          if (recipe.cut.each === 'piece' && bridge?.kind === 'bridge') expect(bridge.from).toEqual(ports[id])
        }
        const part = (done: Run['done']) => totalsOf({ ...whole, nodes: whole.nodes, done }, apart)
        const [before, after, all] = [part(upTo), part(whole.done.slice(k + 1)), part(whole.done)]
        expect(before.steps + after.steps).toBe(all.steps)
        for (const [by, way] of all.ways) {
          const sum = (t: Totals) => Object.values(t.ways.get(by)!).reduce((a, b) => a + b, 0)
          expect(sum(before) + sum(after)).toBeCloseTo(
            Object.values(way).reduce((a, b) => a + b, 0),
            6,
          )
        }
      }),
    )
  })
  it('a new length for every motif begins anywhere', () => {
    const cut = withMotif([{ do: 'pick', items: [{ slot: 'stem', hole: 'a', count: 2 }] }], {
      cut: { folded: false, each: 'motif' },
      start: [],
      end: [],
    })
    const bridges = (recipe: Recipe) => run(recipe, 3).done.flatMap((d) => d.spans.filter((s) => s.kind === 'bridge'))
    expect(bridges(cut)).toHaveLength(3)
    expect(bridges({ ...cut, cut: { folded: false, each: 'piece' } })).toHaveLength(5)
  })
})

describe('what cannot be done', () => {
  const pick = (slot: string, count = 1): Step => ({ do: 'pick', items: [{ slot, hole: 'a', count }] })
  const pass = (bead: string, over: object = {}): Step => ({
    do: 'pass',
    refs: [{ bead, of: 'this', at: 0, hole: 'a', way: 'on', ...over }],
  })
  const only = (motif: Step[], over: Partial<Recipe> = {}) => run(withMotif(motif, { start: [], end: [], ...over }), 2)

  it('is told at its step: a bead that is not strung yet', () => {
    const { faults } = only([pick('petal', 2), pass('petal', { at: 2 })])
    expect(faults).toEqual([
      {
        code: 'not-strung',
        at: 'motif/1',
        says: 'There is no petal 3 yet; there are 2. Pick it up first, or name another. (step 2 of the motif)',
      },
    ])
    expect(codes(only([pass('petal', { of: 'prev', at: -1 }), pick('petal')]))).toEqual(['not-strung'])
    expect(only([pick('petal'), pass('petal', { of: 'prev' })]).faults[0]!.says).toContain('in the motif before')
    expect(only([pass('petal', { of: 'first' }), pick('petal')]).faults[0]!.says).toContain('in the first motif')
  })
  it('a thread that goes straight back into the hole it has left', () => {
    expect(codes(only([pick('petal', 3), pass('petal', { at: -1, way: 'back' })]))).toEqual(['straight-back'])
    // Round a bead, round a cord or after a knot it holds.
    expect(codes(only([pick('petal', 3), pass('petal', { at: 1, way: 'back' })]))).toEqual([])
    expect(codes(only([pick('petal', 3), { do: 'knot', mm: 1 }, pass('petal', { at: -1, way: 'back' })]))).toEqual([])
    expect(
      codes(only([pick('petal'), { do: 'wrap', fixture: 'cap', turns: 0.5 }, pass('petal', { way: 'back' })])),
    ).toEqual([])
    expect(codes(only([pick('petal'), { do: 'fix', fixture: 'cap' }, pass('petal', { way: 'back' })]))).toEqual([])
    // Once more in the same way is round the bead, which holds too.
    expect(codes(only([pick('petal'), pass('petal')]))).toEqual([])
  })
  it('a hole that a bead has not, and one that nothing goes through', () => {
    expect(codes(only([pick('petal', 2), pass('petal', { hole: 'b' })]))).toEqual(['no-hole'])
    const second: Step = { do: 'pick', items: [{ slot: 'petal', hole: 'b', count: 1 }] }
    expect(codes(only([second]))).toEqual(['no-hole'])
    const duos = {
      slots: { ...flower.slots, duo: { name: 'almond', many: 'almonds', spec: 'almond-duo-5-x-2-5-mm' } },
    }
    const { faults } = only([pick('duo', 2)], duos)
    expect(faults).toEqual([
      {
        code: 'hole-unused',
        at: 'duo',
        says:
          'The second hole of almond 1 in motif 1 is never used: lead the thread through it, or choose a bead with ' +
          'one hole.',
      },
    ])
    expect(codes(only([pick('duo', 2), pass('duo', { at: -1, to: 0, hole: 'b', way: 'back' })], duos))).toEqual([])
    const cap = { fixtures: { cap: { name: 'bar', d: 1, holes: 3, pitch: 2 } } }
    expect(codes(only([{ do: 'fix', fixture: 'cap', hole: 3 }], cap))).toEqual(['no-hole'])
    expect(codes(only([{ do: 'fix', fixture: 'cap', hole: 2 }], cap))).toEqual([])
  })
  it('what names nothing, and what cannot be reckoned', () => {
    expect(codes(only([pick('leaf')]))).toEqual(['no-slot'])
    expect(codes(only([{ do: 'fix', fixture: 'leaf' }]))).toEqual(['no-fixture'])
    expect(codes(only([{ do: 'knot', mm: 1, by: 'leaf' }]))).toEqual(['no-carrier'])
    expect(codes(only([{ do: 'each', with: 'i', times: '1/0', steps: [pick('stem')] }]))).toEqual(['expression'])
  })
  it('what would never end, or be too much: it stops there, and says so', () => {
    const each = (times: number, ...steps: Step[]): Step => ({ do: 'each', with: `i${times}`, times, steps })
    expect(codes(only([each(1_000_000, each(999_999, pick('stem', 0)))]))).toEqual(['too-long'])
    expect(codes(only([each(1_000_000, { do: 'when', if: 0, steps: [pick('stem')] })]))).toEqual(['too-long'])
    expect(codes(only([pick('stem', 1_000_000)]))).toEqual(['too-many'])
    expect(codes(only([pick('stem', RECIPE_LIMITS.beads)]))).toEqual([])
    expect(codes(only([pick('stem', RECIPE_LIMITS.beads), pick('petal')]))).toEqual(['too-many'])
    expect(codes(only([pick('stem', 3), pass('stem', { at: 0, to: 999_999 })]))).toEqual(['not-strung'])
    expect(codes(only([{ do: 'fix', fixture: 'cap', times: 100_000 }]))).toEqual(['too-many-turns'])
    expect(codes(only([{ do: 'wrap', fixture: 'cap', turns: '100000' }]))).toEqual(['too-many-turns'])
    // Steps enough for any motif.
    expect(codes(only([each(RECIPE_LIMITS.steps / 2 - 1, { do: 'knot', mm: 0 })]))).toEqual([])
    expect(codes(only([each(RECIPE_LIMITS.steps / 2, { do: 'knot', mm: 0 })]))).toEqual(['too-long'])
  })
})

describe('in words', () => {
  const wordsOf = (recipe: Recipe, n: number, motif: number) => {
    const r = run(recipe, n)
    const words = recipeWords(r)
    return r.done.flatMap((d, k) => (d.motif === motif ? [words[k]!] : []))
  }
  it('counts what is picked up and names what is passed by its rank', () => {
    expect(wordsOf(flower, 2, 1)).toEqual([
      'pick up 4 stem beads, 4 petals, 1 centre bead',
      'back through the 1st petal',
      'pick up 3 petals',
      'back through the 4th petal — the petal beside the centre',
    ])
    expect(wordsOf(flower, 2, -1)).toEqual(['through the end cap'])
  })
  it('says which carrier, which hole, which name and which motif', () => {
    expect(wordsOf(crossing, 2, 0)).toEqual([
      'left needle: pick up 3 side seeds',
      'right needle: pick up 3 side seeds',
      'right needle: pick up 3 cubes',
      'left needle: back through all 3 cubes',
    ])
    expect(wordsOf(lozenge, 2, 0).slice(0, 4)).toEqual([
      'pick up 3 almonds by the first hole, 1 link seed, 3 almonds by the first hole',
      'back through the link seed of the beginning — the ring closes',
      'through all 3 almonds (top), second hole',
      'through the link seed',
    ])
    expect(wordsOf(lozenge, 2, 1)[1]).toBe('back through the link seed of the motif before — the ring closes')
    expect(wordsOf(ribs, 1, -1)).toEqual(['wind 3 turns round the cuff'])
    expect(wordsOf(ribs, 1, 0).slice(2, 5)).toEqual([
      'pick up 1 hexagon by the first hole, 2 seeds',
      'wind half a turn round the cuff',
      'pick up 2 seeds',
    ])
    expect(wordsOf(uneven, 3, -1)).toEqual(['pick up 2 seeds', 'knot'])
    expect(wordsOf(uneven, 3, 3).at(-1)).toBe('glue it')
  })
  it('tells runs up and down, a hole by its number, and how often', () => {
    const told = wordsOf(
      withMotif([
        { do: 'pick', items: [{ slot: 'petal', hole: 'a', count: 5 }] },
        { do: 'pass', refs: [{ bead: 'petal', of: 'this', at: 3, to: 1, hole: 'a', way: 'back' }] },
        { do: 'fix', fixture: 'cap', times: 2 },
        { do: 'wrap', fixture: 'cap', turns: 1 },
      ]),
      1,
      0,
    )
    expect(told).toEqual([
      'pick up 5 petals',
      'back through petals 4 to 2',
      'through the end cap twice',
      'wind 1 turn round the end cap',
    ])
  })
  it('is told from steps of any kind, one sentence each', () => {
    fc.assert(
      fc.property(anyRecipe, (recipe) => {
        const r = run(recipe, 3)
        const words = recipeWords(r)
        expect(words).toHaveLength(r.done.length)
        for (const text of words) expect(text).toMatch(/\S/)
      }),
    )
  })
})

it('bridges that touch: from hole to hole of one bead, round it, nothing else', () => {
  const spec = requireSpec('almond-duo-5-x-2-5-mm')
  const node = { spec } as Node
  const port = (id: number, hole: number, end: 0 | 1) => ({ node: id, hole, end })
  expect(bridgeByTouch(port(0, 0, 1), port(0, 1, 1), [node])).toBe(spec.spacing)
  expect(bridgeByTouch(port(0, 0, 1), port(0, 0, 0), [node])).toBe(spec.l)
  expect(bridgeByTouch(port(0, 0, 1), port(1, 0, 0), [node, node])).toBe(0)
})

it('a list of steps needs no recipe around it: rows, strands and pins are told the same way', () => {
  const { slots, carriers, fixtures, cut } = flower
  const told = runSteps({
    head: { slots, carriers, fixtures, cut },
    units: [{ section: 'motif', motif: 0, steps: recipeSchema.parse(flower).motif }],
    env: envOf(flower, {}, 1),
    spec: specOf(flower),
  })
  expect(told.nodes).toHaveLength(12)
  expect([...unitsOf(flower, 2)].map((u) => u.motif)).toEqual([-1, 0, 1, 2])
})
