import { describe, expect, it } from 'vitest'
import { fitSchema, type Fit } from '../piece/schema'
import { usualClosure, type Closure } from '../wear/closure'
import { FIT_KINDS, type FitKind } from '../wear/kind'
import { feelFor, feelOf, feelQuestion, feelShort, feelWords, roomLimits, type Feel } from './feel'

describe('how it sits', () => {
  const at = (kind: FitKind, closure: Closure['kind'] = 'hook', over: Partial<Fit> = {}): Fit =>
    fitSchema.parse({ kind, bodyMm: 200, widthMm: 10, closure: usualClosure(closure), ...over })
  const feel = (fit: Fit, roomMm: number, differenceMm = 0, beadworkMm = 150) =>
    feelFor(fit, { roomMm, differenceMm, passes: true, beadworkMm })
  /** The feel just below and at each bound, in order. */
  const changes = (fit: Fit, bounds: readonly number[]) =>
    bounds.map((bound) => `${feel(fit, bound - 0.01)} | ${feel(fit, bound)}`)
  it('changes at its bounds, which belong to what is looser, but the last', () => {
    const words = ['will not close | tight', 'tight | close', 'close | easy', 'easy | loose']
    expect(changes(at('bracelet'), [0, 3, 9.5, 16])).toEqual(words)
    expect(changes(at('anklet'), [0, 3, 9.5, 16])).toEqual(words)
    expect(changes(at('bracelet', 'elastic'), [-11, -8, -1.5, 5])).toEqual(words)
    expect(changes(at('choker', 'elastic'), [0, 5, 38, 90])).toEqual(words)
    for (const [fit, most] of [
      [at('bracelet'), 30],
      [at('bracelet', 'elastic'), 19],
      [at('choker'), 125],
    ] as const)
      expect([feel(fit, most), feel(fit, most + 0.01)]).toEqual(['loose', 'too loose'])
    expect([feelOf(-0.01), feelOf(30.01)]).toEqual(['will not close', 'too loose'])
  })
  it('has limits where it goes by room, none where it is made to a length', () => {
    expect(roomLimits(at('bracelet'))).toEqual({ least: 3, most: 30 })
    expect(roomLimits(at('bracelet', 'elastic'))).toEqual({ least: -8, most: 19 })
    expect(roomLimits(at('choker', 'elastic'))).toEqual({ least: 5, most: 125 })
    expect((['cuff', 'necklace', 'ring', 'earrings'] as const).map((k) => roomLimits(at(k)))).toEqual(
      Array(4).fill(null),
    )
  })
  it('of a finished length is right within its tolerance, that of a cuff between its shares of the wrist', () => {
    const off = (kind: FitKind, mm: number) => [-mm - 0.01, -mm, mm, mm + 0.01].map((d) => feel(at(kind), 99, d))
    for (const [kind, mm] of [
      ['necklace', 12.7],
      ['ring', 1.25],
      ['earrings', 3],
    ] as const)
      expect(off(kind, mm)).toEqual(['short', 'right', 'right', 'long'])
    // 0.745 and 0.805 of 200 mm
    expect([148.9, 149.1, 160.9, 161.1].map((mm) => feel(at('cuff'), 0, 0, mm))).toEqual([
      'short',
      'right',
      'right',
      'long',
    ])
  })
  it('is said for what it is worn on', () => {
    const said = (feel: Feel, kinds: readonly FitKind[] = FIT_KINDS) => kinds.map((k) => feelWords(feel, k))
    const round = ['bracelet', 'anklet', 'choker', 'ring'] as const
    expect(said('close', round)).toEqual([
      'Yes, close to the wrist',
      'Yes, close to the ankle',
      'Yes, high on the neck',
      'Yes, close to the body',
    ])
    expect(said('easy', round)).toEqual([
      'Yes, easy on the wrist',
      'Yes, easy on the ankle',
      'Yes, low on the neck',
      'Yes, easy on the body',
    ])
    expect(said('loose', ['anklet'])).toEqual(['Yes, loose on the ankle'])
    expect(said('will not pass', ['bracelet', 'anklet', 'necklace'])).toEqual([
      'No, it will not pass the hand',
      'No, it will not pass the heel',
      'No, it will not pass the head',
    ])
    const lengths = ['necklace', 'ring', 'cuff', 'earrings'] as const
    expect(said('short', lengths)).toEqual([
      'Shorter than wanted',
      'No, the ring is too small',
      'No, the cuff would fall off',
      'Shorter than wanted',
    ])
    expect(said('long', lengths)).toEqual([
      'Longer than wanted',
      'No, the ring is too large',
      'No, too long: the gap closes up',
      'Longer than wanted',
    ])
    expect(said('right', lengths)).toEqual([
      'Yes, the length wanted',
      'Yes, the ring fits',
      'Yes, the cuff holds',
      'Yes, as long as wanted',
    ])
    expect((['short', 'long', 'right'] as const).map((f) => feelWords(f, 'hoop'))).toEqual([
      'No, it does not reach round the hoop',
      'No, it would hang loose on the hoop',
      'Yes, it goes round the hoop',
    ])
    expect([said('will not close'), said('tight'), said('too loose')].map((all) => new Set(all).size)).toEqual([
      1, 1, 1,
    ])
  })
  it('is short in lists, and asked by kind', () => {
    const short = (['close', 'will not close', 'tight', 'too loose', 'short'] as const).map((f) =>
      feelShort(f, 'bracelet'),
    )
    expect(short).toEqual(['close to the wrist', 'not close', 'tight', 'far too loose', 'Shorter than wanted'])
    expect(new Set(FIT_KINDS.map(feelQuestion)).size).toBe(7)
  })
})
