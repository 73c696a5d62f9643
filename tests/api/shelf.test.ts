import { beforeAll, describe, expect, inject, it } from 'vitest'
import { ownSpecId } from '#core/bead/spec'
import type { ShelfItem, ShelfValue } from '#core/shelf/shelf'
import { valueOf } from '#core/problem'
import { readRecipeText } from '#core/recipe/shorthand'
import { client, person } from './client'

const address = inject('address')
type Person = Awaited<ReturnType<typeof person>>
let weaver: Person
let other: Person
beforeAll(async () => {
  weaver = await person(address)
  other = await person(address)
})

const BEAD: ShelfValue & { kind: 'bead' } = {
  kind: 'bead',
  name: 'Moss',
  spec: 'round-11',
  colour: '#446622',
  finish: 'matte',
  grams: 12.5,
  tubeGrams: 2.1,
  packGrams: 10,
  price: 240,
}
const SIZE: ShelfValue = {
  kind: 'spec',
  name: 'My rounds',
  spec: ownSpecId({ shape: 'round', name: 'My rounds', d: 2.05, l: 1.45, h: 0.8, perGram: 112 }),
}
const STAMP: ShelfValue = {
  kind: 'stamp',
  name: 'Dot',
  technique: 'loom',
  columns: 2,
  rows: 1,
  cells: [1, 0],
  beads: [{ name: 'Moss', spec: 'round-11', colour: '#446622', finish: 'matte' }],
}
const RECIPE: ShelfValue = {
  kind: 'recipe',
  name: 'Pips',
  recipe: valueOf(
    readRecipeText(
      'recipe pips "Pips"\nfield s 1..9=3 "Stem"\nbead stem round-8 "stem bead" "stem beads"\n' +
        'carrier thread thread 0.15 "thread"\nmotif\n  pick stem*s\n  pass stem<\n',
    ),
  ),
  params: { s: 4 },
}
const list = async (who: Person) => (await who.call<{ items: ShelfItem[] }>('GET', 'shelf')).body.items

describe('the shelf', () => {
  it('keeps beads, sizes, stamps and recipes, in order, and lets them go', async () => {
    const values = [BEAD, SIZE, STAMP, RECIPE]
    const kept = await weaver.call<{ items: ShelfItem[] }>('POST', 'shelf', { values })
    expect(kept.status).toBe(200)
    expect((await list(weaver)).map((i) => i.value)).toEqual(values)
    expect((await weaver.call('DELETE', `shelf/${kept.body.items[0]!.id}`)).status).toBe(200)
    expect((await list(weaver)).map((i) => i.value)).toEqual([SIZE, STAMP, RECIPE])
    // A recipe that is not sound is refused with what is wrong in it.
    const unsound = { ...RECIPE, recipe: { ...RECIPE.recipe, slots: {} } }
    const bad = await weaver.call('POST', 'shelf', { values: [unsound] })
    expect(bad.status).toBe(422)
    expect(JSON.stringify(bad.body)).toContain('There is no bead “stem”')
  })
  it('shows nobody another’s shelf, nor takes from it', async () => {
    const { id } = (await weaver.call<{ items: ShelfItem[] }>('POST', 'shelf', { values: [BEAD] })).body.items[0]!
    expect(await list(other)).toEqual([])
    const theirs = await other.call('DELETE', `shelf/${id}`)
    const none = await other.call('DELETE', 'shelf/00000000-0000-4000-8000-000000000000')
    const bad = await other.call('DELETE', 'shelf/nonsense')
    expect([theirs.status, none.status, bad.status]).toEqual([404, 404, 404])
    expect(theirs.body).toEqual(none.body)
    expect((await list(weaver)).some((i) => i.id === id)).toBe(true)
    for (const [method, path] of [
      ['GET', 'shelf'],
      ['POST', 'shelf'],
      ['DELETE', `shelf/${id}`],
    ] as const)
      expect(
        (await client(address).call(method, path, method === 'POST' ? { values: [BEAD] } : undefined)).status,
      ).toBe(401)
  })
  it.each([
    [{ ...BEAD, colour: 'moss' }],
    [{ ...BEAD, spec: 'pebble' }],
    [{ ...SIZE, spec: 'own/round/9/1/12/100/x' }],
    [{ ...STAMP, cells: [1] }],
    [{ ...STAMP, cells: [2, 0] }],
    [{ kind: 'song', name: 'x' }],
    [{ ...BEAD, more: 1 }],
  ])('refuses what cannot be (%#)', async (value) => {
    const answer = await weaver.call('POST', 'shelf', { values: [value] })
    expect(answer.status).toBe(422)
    expect(answer.body.error!.says.length).toBeGreaterThan(10)
  })
  it('says so when it is full', async () => {
    const many = await person(address)
    for (let k = 0; k < 5; k++)
      expect((await many.call('POST', 'shelf', { values: Array.from({ length: 200 }, () => BEAD) })).status).toBe(200)
    const full = await many.call('POST', 'shelf', { values: [BEAD] })
    expect([full.status, full.body.error!.code]).toEqual([409, 'shelf-full'])
  })
})
