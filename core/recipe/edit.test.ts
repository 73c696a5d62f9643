import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec } from '../bead/spec'
import { valueOf } from '../problem'
import { readRecipe } from './check'
import {
  carriedBy,
  carrierWay,
  countAsField,
  emptyRecipe,
  freeName,
  inserted,
  listAt,
  movedPath,
  onlyIn,
  pathOf,
  plus,
  removed,
  repeated,
  replaced,
  SOME_MOTIFS,
  spotOf,
  stepAt,
  swapped,
  takenApart,
  tidied,
  timesAsField,
  withFixture,
  withoutField,
  withSlot,
} from './edit'
import { evaluate } from './expression'
import type { Recipe, Step } from './language'
import { refsThrough, sharedWithBefore, turnedRound } from './pressed'
import type { Going, Run } from './run'
import { recipeText, readRecipeText } from './shorthand'
import { envOf, runRecipe, type Params } from './total'

const HEAD = `recipe own "Own"
field s 1..9=3 "Stem beads"
bead stem round-8 "stem bead" "stem beads"
bead petal round-8 "petal" "petals"
bead leaf almond-duo-5-x-2-5-mm "leaf" "leaves"
carrier thread thread 0.15 "thread"
fixture cap d=4 "cap"
`
const told = (steps: string): Recipe => valueOf(readRecipeText(`${HEAD}${steps}`))
const run = (recipe: Recipe, n = 3, params: Params = {}): Run =>
  runRecipe({ recipe, params, spec: (slot) => requireSpec(recipe.slots[slot]!.spec) }, n)
const env = (recipe: Recipe, params: Params = {}) => new Map([...envOf(recipe, params, 3), ['m', 1]])
/** What a run does to which beads, whatever the text says. */
const deeds = ({ done }: Run) =>
  done.map(({ motif, act, goes, fixture, amount }) => ({ motif, act, goes, fixture, amount }))
const text = (recipe: Recipe) => recipeText(recipe).split('\nmotif\n')[1] ?? ''

const FLOWER = told(`motif
  pick stem*s petal*4 stem
  pass petal[0]<
  pick petal*3
  pass petal[3]<
end
  pick stem*s
`)

describe('steps by where they stand', () => {
  it('are put in, taken out and exchanged; a list that holds nothing any more goes', () => {
    const recipe = told(`motif
  pick stem
  each i*2
    pick petal
    when s>2
      pass petal[i]
`)
    expect(spotOf('motif/1/steps/1/steps/0')).toEqual({ section: 'motif', inside: [1, 1], at: 0 })
    expect(pathOf(spotOf('motif/1/steps/1/steps/0'))).toBe('motif/1/steps/1/steps/0')
    expect(movedPath('motif/1/steps/0', 1)).toBe('motif/1/steps/1')
    expect(stepAt(recipe, 'motif/1/steps/1/steps/0')).toMatchObject({ do: 'pass' })
    expect(stepAt(recipe, 'motif/1/steps/7/steps/0')).toBeUndefined()
    expect(listAt(recipe, 'motif/1/steps/0')).toHaveLength(2)
    const knot: Step = { do: 'knot', mm: 5 }
    const more = inserted(recipe, 'motif/1/steps/1/steps/1', knot)
    expect(stepAt(more, 'motif/1/steps/1/steps/1')).toEqual(knot)
    expect(removed(more, 'motif/1/steps/1/steps/1')).toEqual(recipe)
    expect(swapped(swapped(recipe, 'motif/0', 1), 'motif/1', -1)).toEqual(recipe)
    expect(swapped(recipe, 'motif/0', -1)).toEqual(recipe)
    expect(text(removed(recipe, 'motif/1/steps/1/steps/0'))).toBe('  pick stem\n  each i*2\n    pick petal\n')
    expect(text(removed(removed(recipe, 'motif/1/steps/0'), 'motif/1/steps/0/steps/0'))).toBe('  pick stem\n')
    expect(text(takenApart(recipe, 'motif/1'))).toBe('  pick stem\n  pick petal\n  when s>2\n    pass petal\n')
    // The one it was made from is as it was.
    expect(recipe.motif).toHaveLength(2)
  })
  it('are put in and taken out again anywhere without a trace', () => {
    const steps: Step[] = [
      { do: 'knot', mm: 3 },
      { do: 'say', text: 'turn' },
      { do: 'pick', items: [{ slot: 'stem', hole: 'a', count: 2 }] },
    ]
    fc.assert(
      fc.property(fc.nat(4), fc.constantFrom(...steps), (at, step) => {
        const path = `motif/${at}`
        expect(removed(inserted(FLOWER, path, step), path)).toEqual(FLOWER)
      }),
    )
  })
})

describe('steps of some motifs', () => {
  it('are done there only, and everywhere again when they are taken apart', () => {
    const motifs = {
      'm%2=0': [0, 2, 4],
      'm%2=1': [1, 3],
      'm%3=0': [0, 3],
      'm=0': [0],
      'm>0': [1, 2, 3, 4],
      'm<n-1': [0, 1, 2, 3],
      'm=n-1': [4],
    }
    for (const { if: condition } of SOME_MOTIFS) {
      const next = onlyIn(FLOWER, 'motif/2', condition)
      const done = run(next, 5).done.filter(({ path }) => path.startsWith('motif/2/'))
      expect(done.map(({ motif }) => motif)).toEqual(motifs[condition])
      expect(takenApart(next, 'motif/2')).toEqual(FLOWER)
    }
    expect(onlyIn(FLOWER, 'motif/9', 'm=0')).toBe(FLOWER)
  })
})

describe('a number that becomes a field', () => {
  it('keeps what was meant: the last stays the last, and what comes later moves on', () => {
    const field = { id: 'half', label: 'Upper petals', least: 2, most: 9 }
    const next = countAsField(FLOWER, 'motif/0', 1, field, env(FLOWER))
    expect(text(next)).toBe(
      '  pick stem*s petal*half stem\n  pass petal<\n  pick petal*3\n  pass petal[half-1]<\nend\n  pick stem*s\n',
    )
    expect(deeds(run(next, 3, { half: 4 }))).toEqual(deeds(run(FLOWER)))
    // A second one counts on from the first, and a field that is there already is taken with what it lacks.
    const both = countAsField(next, 'motif/2', 0, { ...field, id: 'low', label: 'Lower' }, env(next, { half: 4 }))
    expect(deeds(run(both, 3, { half: 4, low: 3 }))).toEqual(deeds(run(FLOWER)))
    const same = countAsField(next, 'motif/2', 0, field, env(next, { half: 4 }))
    expect(text(same)).toContain('pick petal*half-1')
    expect(same.params).toHaveLength(2)
    expect(deeds(run(same, 3, { half: 4 }))).toEqual(deeds(run(FLOWER)))
    expect(run(same, 1, { half: 6 }).nodes.filter((n) => n.name === 'petal')).toHaveLength(11)
  })
  it('means the same beads for every value, told apart by a model that counts from both ends', () => {
    const wish = fc.record({ a: fc.integer({ min: 2, max: 5 }), b: fc.integer({ min: 2, max: 5 }), more: fc.nat(4) })
    fc.assert(
      fc.property(wish, ({ a, b, more }) => {
        const recipe = told(`motif
  pick petal*${a} stem petal*${b}
  pass petal[0] petal[${a - 1}] petal[${a}..${a + b - 1}] petal[-1]
  pass prev/petal[${a + b - 1}]
start
  pick petal*${a + b}
`)
        const next = countAsField(recipe, 'motif/0', 0, { id: 'f', label: 'F', least: 1, most: 20 }, env(recipe))
        expect(deeds(run(next, 3, { f: a }))).toEqual(deeds(run(recipe)))
        const grown = run(next, 2, { f: a + more }).done.filter((d) => d.motif === 1 && d.act === 'pass')
        const places = grown.map(({ goes }) => goes.map(({ node }) => run(next, 2, { f: a + more }).nodes[node]!.at))
        const all = a + more + b
        expect(places).toEqual([
          [0, a + more - 1, ...Array.from({ length: b }, (_, k) => a + more + k), all - 1],
          [all - 1],
        ])
      }),
      { numRuns: 30 },
    )
  })
  it('becomes a plain number again', () => {
    const field = { id: 'half', label: 'Upper petals', least: 2, most: 9 }
    const next = countAsField(FLOWER, 'motif/0', 1, field, env(FLOWER))
    expect(withoutField(next, 'half', 4)).toEqual(FLOWER)
    const five = withoutField(next, 'half', 5)
    expect(text(five)).toContain('petal*5 stem')
    expect(five.params.map((p) => p.id)).toEqual(['s'])
    expect(text(withoutField(told('motif\n  pick stem*12/(s-3)\n'), 's', 3))).toBe('  pick stem*12/(3-3)\n')
  })
  it('adds to what stands there already so that it can be read', () => {
    expect([plus(4, -1), plus('f', 2), plus('f-1', 1), plus('2*f-3', 1), plus('(f+1)/2', -1), plus('f', 0)]).toEqual([
      ...[3, 'f+2', 'f', '2*f-2', '((f+1)/2)-1', 'f'],
    ])
    fc.assert(
      fc.property(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }), fc.nat(9), (a, b, f) => {
        const values = new Map([['f', f]])
        for (const expr of ['f', '3*f', 'f*2-7', '(f+1)/2', 'f%4', 5])
          expect(evaluate(plus(plus(expr, a), b), values)).toBe(evaluate(expr, values) + a + b)
      }),
    )
  })
})

describe('steps that are repeated', () => {
  it('go through what each turn picked up, and so many beads further where those were there before', () => {
    const recipe = told(`start
  pick stem*9
motif
  pick petal*3
  pass petal[2]<
  pass start/stem[1]
  pick leaf
`)
    const next = repeated(recipe, 'motif/0', { count: 3, times: 4, further: 2 }, env(recipe))
    expect(text(next)).toBe(
      '  each i*4\n    pick petal*3\n    pass petal[3*i+2]<\n    pass start/stem[2*i+1]\n  pick leaf\n',
    )
    const once = repeated(recipe, 'motif/0', { count: 3, times: 1, further: 2 }, env(recipe))
    expect(deeds(run(once))).toEqual(deeds(run(recipe)))
    const passed = run(next, 1).done.filter((d) => d.act === 'pass' && d.motif === 0)
    expect(passed.map(({ goes }) => run(next, 1).nodes[goes[0]!.node]!.at)).toEqual([2, 1, 5, 3, 8, 5, 11, 7])
    // The same ones again; and again within it, with a counter of its own.
    expect(text(repeated(recipe, 'motif/2', { count: 1, times: 2, further: 0 }, env(recipe)))).toContain(
      'each i*2\n    pass start/stem[1]',
    )
    const twice = repeated(next, 'motif/0', { count: 1, times: 2, further: 0 }, env(next))
    expect(text(twice)).toContain('each j*2\n    each i*4')
    expect(readRecipe(twice).ok).toBe(true)
    expect(text(repeated(recipe, 'motif/9', { count: 1, times: 2, further: 0 }, env(recipe)))).toBe(text(recipe))
  })
  it('let their number be a field; what is picked up behind them moves on', () => {
    const recipe = told(`motif
  each i*3
    pick petal*2
  pick petal
  pass petal[6] petal[5] petal[0]
`)
    const field = { id: 'pairs', label: 'Pairs', least: 1, most: 9 }
    const next = timesAsField(recipe, 'motif/0', field, env(recipe))
    expect(deeds(run(next, 3, { pairs: 3 }))).toEqual(deeds(run(recipe)))
    const five = run(next, 1, { pairs: 5 })
    expect(five.done.at(-1)!.goes.map(({ node }) => five.nodes[node]!.at)).toEqual([10, 9, 0])
    expect(timesAsField(recipe, 'motif/1', field, env(recipe))).toBe(recipe)
  })
})

describe('what plays a part', () => {
  it('gets a name of its own, and goes when nothing uses it', () => {
    expect(freeName('Tip bead', new Set())).toBe('tipbead')
    expect(freeName('Tip bead', new Set(['tipbead', 'tipbead2']))).toBe('tipbead3')
    expect(freeName('12 ¿', new Set())).toBe('part')
    const empty = emptyRecipe('Mine', { name: 'bead', many: 'beads', spec: 'round-8' })
    expect(readRecipe(empty).ok).toBe(true)
    const [one, slot] = withSlot(empty, { name: 'bead', many: 'beads', spec: 'round-11' })
    expect(slot).toBe('bead2')
    const [two, ring] = withFixture(one, { name: 'clasp ring', d: 5 })
    expect(two.fixtures[ring]).toEqual({ name: 'clasp ring', d: 5, holes: 1, pitch: 0 })
    const used = inserted(two, 'motif/0', { do: 'pick', items: [{ slot, hole: 'a', count: 2 }] })
    expect(Object.keys(tidied(used).slots)).toEqual(['bead2'])
    expect(tidied(used).fixtures).toEqual({})
    expect(tidied(inserted(used, 'motif/1', { do: 'fix', fixture: ring })).fixtures).toEqual(two.fixtures)
  })
})

describe('what it is worked with', () => {
  it('is one thread, or two ends of one length; steps of an end that is gone are of the first', () => {
    const two = carriedBy(FLOWER, 'needles')
    expect([carrierWay(FLOWER), carrierWay(two), carrierWay(carriedBy(two, 'wire'))]).toEqual([
      ...['thread', 'needles', 'wire'],
    ])
    expect(two.cut.folded).toBe(true)
    const crossed = inserted(two, 'motif/1', {
      do: 'pick',
      items: [{ slot: 'leaf', hole: 'a', count: 1 }],
      by: 'right',
    })
    expect(readRecipe(crossed).ok).toBe(true)
    const one = carriedBy(crossed, 'thread')
    expect(readRecipe(one).ok).toBe(true)
    expect(one.cut.folded).toBe(false)
    expect(deeds(run(one))).toEqual(
      deeds(run(inserted(FLOWER, 'motif/1', { do: 'pick', items: [{ slot: 'leaf', hole: 'a', count: 1 }] }))),
    )
  })
})

describe('holes that are pressed', () => {
  const recipe = told(`start
  pick stem*2
motif
  pick leaf*3 stem*4
  fix cap
`)
  it('become references that lead through the very same holes', () => {
    const now = run(recipe, 2)
    const here = now.nodes.filter((n) => !n.isFixture && (n.motif === 1 || n.motif === 0 || n.motif === -1))
    const going = fc.constantFrom(...here).chain((node) =>
      fc.record<Going>({
        node: fc.constant(node.id),
        hole: fc.integer({ min: 0, max: node.passes.length - 1 }),
        way: fc.constantFrom(1 as const, -1 as const),
      }),
    )
    fc.assert(
      fc.property(fc.array(going, { minLength: 1, maxLength: 9 }), (goes) => {
        const refs = valueOf(refsThrough(goes, now.nodes, 1))
        const next = inserted(recipe, 'motif/2', { do: 'when', if: 'm', steps: [{ do: 'pass', refs }] })
        const done = run(next, 2)
          .done.filter((d) => d.motif === 1)
          .at(-1)!
        expect(done.goes).toEqual(goes)
        expect(refs.length).toBeLessThanOrEqual(goes.length)
      }),
    )
  })
  it('are runs where they follow each other, either way', () => {
    const now = run(recipe, 2)
    const stems = now.nodes.filter((n) => n.motif === 1 && n.name === 'stem').map((n) => n.id)
    const homeward = stems.toReversed().map((node): Going => ({ node, hole: 0, way: -1 }))
    expect(valueOf(refsThrough(homeward, now.nodes, 1))).toEqual([
      { bead: 'stem', of: 'this', at: 3, to: 0, hole: 'a', way: 'back' },
    ])
    const to = refsThrough([{ node: now.nodes.find((n) => n.motif === 0)!.id, hole: 0, way: 1 }], now.nodes, 3)
    expect(to.ok ? '' : to.problems[0]!.code).toBe('too-far')
    // Where a ring closes, the last motif and the end go on through the first one; no other does.
    const petal = now.nodes.find((n) => n.motif === 0 && n.name === 'stem')!
    const back = (motif: number) => refsThrough([{ node: petal.id, hole: 0, way: -1 }], now.nodes, motif, 4)
    for (const motif of [3, 4])
      expect(valueOf(back(motif))).toEqual([{ bead: 'stem', of: 'first', at: 0, hole: 'a', way: 'back' }])
    expect(valueOf(back(1))[0]!.of).toBe('prev')
    expect(back(2).ok).toBe(false)
    const ring = refsThrough([{ node: now.nodes.find((n) => n.isFixture)!.id, hole: 0, way: 1 }], now.nodes, 0)
    expect(ring.ok ? '' : ring.problems[0]!.says).toContain('finding')
  })
  it('are entered at the other end one by one, also within a run; twice is as before', () => {
    const passed = told('motif\n  pick petal*6\n  pass petal[1..4] petal[0]<\n')
    for (let k = 0; k < 5; k++) {
      const before = run(passed, 1)
      const done = before.done[1]!
      const step = stepAt(passed, 'motif/1') as Step & { do: 'pass' }
      const next = replaced(passed, 'motif/1', turnedRound(step, done, before.nodes, k))
      const after = run(next, 1)
      expect(after.done[1]!.goes).toEqual(done.goes.map((g, i) => (i === k ? { ...g, way: g.way === 1 ? -1 : 1 } : g)))
      const again = turnedRound(stepAt(next, 'motif/1') as Step & { do: 'pass' }, after.done[1]!, after.nodes, k)
      expect(run(replaced(passed, 'motif/1', again), 1).done[1]!.goes).toEqual(done.goes)
    }
  })
})

describe('two beads that are one', () => {
  it('are picked up once: the next motif goes through the bead of the one before', () => {
    const ring = told('motif\n  pick petal*8\n  pass petal[0]\n')
    const next = valueOf(sharedWithBefore(ring, { name: 'petal', at: 0 }, { name: 'petal', at: 4 }, env(ring)))
    expect(recipeText(next).split('\nstart\n')[1]).toBe(
      '  pick petal:shared\nmotif\n  pass prev/shared\n  pick petal*3 petal:shared petal*3\n  pass prev/shared\n',
    )
    const { nodes, faults } = run(next, 3)
    expect(faults).toEqual([])
    // A ring of eight each, of which all but the first share one: 8 + 7 + 7.
    expect(nodes).toHaveLength(22)
    expect(nodes.filter((n) => n.name === 'shared').map((n) => n.passes[0])).toEqual([3, 3, 3, 1])
  })
  it('have one name already where it is the only one of its name', () => {
    const chain = told('motif\n  pick leaf petal*3 stem\n  pass leaf\n')
    const next = valueOf(sharedWithBefore(chain, { name: 'leaf', at: 0 }, { name: 'stem', at: 0 }, env(chain)))
    expect(recipeText(next).split('\nstart\n')[1]).toBe(
      '  pick stem\nmotif\n  pass prev/stem\n  pick petal*3 stem\n  pass prev/stem\n',
    )
  })
  it('are not found where a field or a repeat counts them, or they are the same place of a motif', () => {
    const says = (recipe: Recipe, one: string, at: number, other: string, to: number): string => {
      const done = sharedWithBefore(recipe, { name: one, at }, { name: other, at: to }, env(recipe))
      return done.ok ? '' : done.problems[0]!.code
    }
    expect(says(told('motif\n  pick petal*s stem\n'), 'stem', 0, 'petal', 1)).toBe('counted')
    expect(says(told('motif\n  each i*3\n    pick petal\n  pick stem\n'), 'stem', 0, 'petal', 1)).toBe('counted')
    expect(says(told('motif\n  pick petal*3\n'), 'petal', 1, 'petal', 1)).toBe('same')
    expect(
      says(told('start\n  pick stem\nmotif\n  pass prev/stem\n  pick petal*3 stem\n'), 'stem', 0, 'petal', 1),
    ).toBe('too-far')
  })
})
