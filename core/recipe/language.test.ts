import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyRecipe, flower, SAMPLES } from '../../tests/fixture/recipe'
import { checkNames, readRecipe } from './check'
import { evaluate, ExpressionFault, parseExpression } from './expression'
import { RECIPE_LIMITS, type Recipe, type Step } from './language'
import { itemText, readItem, readRecipeText, readRef, recipeText, refText } from './shorthand'

const codes = (value: unknown): string[] => {
  const read = readRecipe(value)
  return read.ok ? [] : read.problems.map((p) => p.code)
}
const says = (value: unknown): string => {
  const read = readRecipe(value)
  return read.ok ? '' : read.problems.map((p) => p.says).join(' ')
}
const withMotif = (motif: unknown[]): unknown => ({ ...structuredClone(flower), motif })
const deep = (levels: number): Step =>
  levels === 0 ? { do: 'knot', mm: 1 } : { do: 'when', if: 1, steps: [deep(levels - 1)] }

describe('expressions', () => {
  const env = new Map([
    ['p', 7],
    ['i', 2],
  ])
  it.each([
    ['1+2*3', 7],
    ['(1+2)*3', 9],
    ['7/2', 3],
    ['-7/2', -4],
    ['-7%3', 2],
    ['7%-3', -2],
    ['8-3-2', 3],
    ['p%3=1', 1],
    ['p<7', 0],
    ['i+1<p-3', 1],
    ['p>3=1', 1],
    ['--p', 7],
    ['(p+1)/2 - 1', 3],
  ])('%s is %i (by hand)', (text, value) => {
    expect(evaluate(text, env)).toBe(value)
  })
  it.each([
    ['1+', 'ends too early'],
    ['(1', 'bracket'],
    ['1)', 'left over'],
    ['2 p', 'left over'],
    ['p;i', 'cannot be read'],
    ['1/(p-7)', 'divides by 0'],
    ['q', 'names “q”'],
    ['*2', 'where a number'],
    ['1000000*2', 'more than'],
    ['99999999999999999999', 'more than'],
  ])('%s is refused with a sentence', (text, sentence) => {
    expect(() => evaluate(text, env)).toThrow(ExpressionFault)
    expect(() => evaluate(text, env)).toThrow(sentence)
  })
  it('name nothing but what is theirs, not even what every object has', () => {
    expect(() => evaluate('constructor', new Map())).toThrow('names “constructor”')
    expect(parseExpression('toString')).toEqual({ is: 'name', name: 'toString' })
  })
})

describe('short hand', () => {
  it('reads what it writes, of any recipe', () => {
    fc.assert(
      fc.property(anyRecipe, (recipe) => {
        const read = readRecipeText(recipeText(recipe))
        expect(read.ok ? read.value : read.problems).toEqual(recipe)
      }),
    )
    for (const recipe of SAMPLES) expect(readRecipeText(recipeText(recipe))).toEqual({ ok: true, value: recipe })
  })
  it('leaves out what is as usual', () => {
    expect(recipeText(flower).split('\n').slice(8, 14)).toEqual([
      'start',
      '  fix cap',
      'motif',
      '  pick stem*s petal*(p+1)/2 centre',
      '  pass petal[0]<'.replace('[0]', ''),
      '  pick petal*p/2',
    ])
    for (const text of ['petal', 'petal*4', 'duo:top.b*w', 'seed*(p+1)/2']) expect(itemText(readItem(text))).toBe(text)
    for (const text of ['petal', 'petal<', 'prev/link<', 'duo[2..0].b', 'low[-1..h-1-i]', 'start/knot[1].b<'])
      expect(refText(readRef(text))).toBe(text)
    expect(refText(readRef('petal[0]>'))).toBe('petal')
  })
  it.each([
    ['recipe x', 'Line 1: '],
    ['recipe x "X"\nmotif\n  pluck seed', 'Line 3: “pluck seed” is no step'],
    ['recipe x "X"\nmotif\n  pick seed*\n', 'Line 3: “seed*” is no bead to pick up'],
    ['recipe x "X"\nmotif\n  pass [2]\n', 'Line 3: “[2]” is no bead to go through'],
    ['recipe x "X"\nmotif\n     pick seed', 'Line 3 stands too far in'],
    ['recipe x "X"\nmotif\n  each i\n    pick seed', 'Line 3: write each name*times'],
    ['recipe x "X"\nfield p 1-3 "P"', 'Line 2: “1-3” should be least..most=usual'],
    ['recipe x X', 'should be a text in quotes'],
    ['colour red', '“colour” begins no line'],
    ['cut twice', 'Write “cut folded”'],
  ])('says what is wrong with %j', (text, sentence) => {
    const read = readRecipeText(text)
    expect(read.ok ? '' : read.problems[0]!.says).toContain(sentence)
  })
})

describe('a recipe that comes from outside', () => {
  it('is taken as it is if it is sound', () => {
    for (const recipe of SAMPLES) {
      expect(readRecipe(JSON.parse(JSON.stringify(recipe)))).toEqual({ ok: true, value: recipe })
      expect(checkNames(recipe)).toEqual([])
    }
  })
  it('has names for everything it names', () => {
    const pick = (over: object) => ({ do: 'pick', items: [{ slot: 'stem', ...over }] })
    expect(codes(withMotif([pick({ slot: 'stalk' })]))).toEqual(['no-slot'])
    expect(codes(withMotif([pick({ count: 'q+1' })]))).toEqual(['no-name'])
    expect(codes(withMotif([pick({ count: '1+' })]))).toEqual(['expression'])
    expect(codes(withMotif([{ ...pick({}), by: 'left' }]))).toEqual(['no-carrier'])
    expect(codes(withMotif([{ do: 'pass', refs: [{ bead: 'petal' }] }]))).toEqual(['no-bead'])
    expect(codes(withMotif([{ do: 'fix', fixture: 'clasp' }]))).toEqual(['no-fixture'])
    expect(codes(withMotif([{ do: 'wrap', fixture: 'stem', turns: 1 }]))).toEqual(['no-fixture'])
    expect(codes(withMotif([{ do: 'each', with: 'p', times: 2, steps: [pick({})] }]))).toEqual(['taken'])
    // A counter counts inside its loop only.
    const loop = { do: 'each', with: 'i', times: 2, steps: [pick({ count: 'i' })] }
    expect(codes(withMotif([loop]))).toEqual([])
    expect(codes(withMotif([loop, pick({ count: 'i' })]))).toEqual(['no-name'])
    expect(says(withMotif([loop, pick({ count: 'i' })]))).toContain('there are s, p, m, n. (step 2 of the motif)')
    expect(codes({ ...structuredClone(flower), hangs: ['leaf'] })).toEqual(['no-bead'])
    expect(codes({ ...structuredClone(flower), lies: { leaf: 1 } })).toEqual(['no-bead'])
  })
  it('keeps its fields within their bounds, and carriers and fields apart', () => {
    const with2 = (over: Partial<Recipe>) => codes({ ...structuredClone(flower), ...over })
    const [s] = flower.params
    expect(with2({ params: [{ ...s!, usual: 40 }] })).toContain('bounds')
    expect(with2({ params: [s!, s!] })).toContain('twice')
    expect(with2({ params: [{ ...s!, id: 'm' }] })).toContain('taken')
    expect(with2({ carriers: [flower.carriers[0]!, flower.carriers[0]!] })).toContain('twice')
    expect(with2({ params: Array.from({ length: 9 }, (_, k) => ({ ...s!, id: `p${k}` })) })).toContain('shape-too_big')
    expect(codes({ ...structuredClone(flower), colour: 'red' })).toEqual(['shape-unrecognized_keys'])
  })
  it('is not nested deeper than four steps', () => {
    expect(codes(withMotif([deep(RECIPE_LIMITS.nesting)]))).toEqual([])
    expect(codes(withMotif([deep(RECIPE_LIMITS.nesting + 1)]))).toEqual(['too-deep'])
  })
  it('is refused before it is looked at closely where it is deep, huge or endless', () => {
    expect(codes(withMotif([deep(5000)]))).toEqual(['too-deep'])
    const items = Array.from({ length: 90 }, () => ({ slot: 'stem', count: 1 }))
    expect(codes(withMotif(Array.from({ length: 200 }, () => ({ do: 'pick', items }))))).toEqual(['too-large'])
    expect(codes({ ...structuredClone(flower), name: 'x'.repeat(RECIPE_LIMITS.text) })).toEqual(['too-large'])
    expect(codes(withMotif(new Array(10_000_000)))).toEqual(['too-large'])
    const ring: Record<string, unknown> = { ...structuredClone(flower) }
    ring.motif = [ring]
    expect(codes(ring)).toEqual(['too-deep'])
    for (const nothing of [null, undefined, 7, 'recipe', [], {}]) expect(codes(nothing).length).toBeGreaterThan(0)
  })
  it('in 32 kB and no more, counted as JSON', () => {
    const texts = (count: number) =>
      withMotif(Array.from({ length: count }, () => ({ do: 'say', text: 'x'.repeat(200) })))
    const size = (count: number) => JSON.stringify(texts(count)).length
    let fits = 1
    while (size(fits + 1) <= RECIPE_LIMITS.text) fits++
    expect(codes(texts(fits))).toEqual([])
    // A little over is let through by no more than the quotes of its names.
    let over = fits
    while (codes(texts(over)).length === 0 && over < 200) over++
    expect(size(over)).toBeLessThan(RECIPE_LIMITS.text * 1.15)
  })
})
