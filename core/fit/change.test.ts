import { describe, expect, it } from 'vitest'
import { fitSchema, type Fit } from '../piece/schema'
import { measuresSchema, type Person } from '../shelf/shelf'
import { asKind, forPerson, withClosure } from './change'
import { usualClosure } from '../wear/closure'
import { FIT_KINDS, fitKindOf } from '../wear/kind'

const fit = (over: Partial<Fit> = {}): Fit =>
  fitSchema.parse({
    kind: 'bracelet',
    bodyMm: 164,
    easeMm: 22,
    passMm: 205,
    wraps: 3,
    widthMm: 10,
    closure: usualClosure('toggle'),
    ...over,
  })

describe('the fit as another kind', () => {
  it('is the fit itself where the kind is the same', () => {
    const same = fit()
    expect(asKind(same, 'bracelet')).toBe(same)
  })
  it('keeps a measure that both are made to, and takes the usual one where they are not', () => {
    // bracelet and cuff go by the wrist, all else by measures of their own
    expect(asKind(fit(), 'cuff').bodyMm).toBe(164)
    for (const kind of FIT_KINDS.filter((k) => k !== 'bracelet' && k !== 'cuff'))
      expect(asKind(fit(), kind).bodyMm).toBe(fitKindOf(kind).usualMm)
  })
  it('has the usual room: easy at wrist and ankle, high on the neck, none where a length is given', () => {
    const eases = FIT_KINDS.filter((k) => k !== 'bracelet').map((k) => [k, asKind(fit(), k).easeMm])
    expect(Object.fromEntries(eases)).toEqual({
      cuff: 0,
      anklet: 13,
      choker: 15,
      necklace: 0,
      ring: 0,
      hoop: 0,
      earrings: 0,
      pendant: 0,
    })
  })
  it('forgets what it had to pass, and goes round as often only where work can be wound', () => {
    for (const kind of FIT_KINDS.filter((k) => k !== 'bracelet')) {
      const next = asKind(fit(), kind)
      expect([next.kind, next.passMm, next.wraps]).toEqual([kind, 0, kind === 'anklet' || kind === 'choker' ? 3 : 1])
    }
  })
  it('keeps its closure where that kind has it, and takes the first of its own where it has not', () => {
    const own = { ...usualClosure('toggle'), lengthMm: 17, name: 'Horn toggle' }
    expect(asKind(fit({ closure: own }), 'necklace').closure).toEqual(own)
    expect(asKind(fit({ closure: own }), 'earrings').closure).toEqual(usualClosure('ear-wire'))
    expect(asKind(fit({ closure: own }), 'ring').closure).toEqual(usualClosure('none'))
  })
})

describe('the fit for a person', () => {
  const person = (over: Partial<Person> = {}): Person => ({
    kind: 'person',
    name: 'Ylva',
    measures: measuresSchema.parse({ wrist: 158, hand: 196, heel: 300, head: 570, ankle: 240, drop: 35 }),
    ear: 'clip',
    notes: '',
    easeMm: 9,
    ...over,
  })
  it('takes the measures that matter for the kind, and leaves a measure that nobody took', () => {
    expect(forPerson(fit(), person())).toMatchObject({ wearer: 'Ylva', bodyMm: 158, passMm: 196, easeMm: 9 })
    expect(forPerson(fit({ kind: 'anklet' }), person())).toMatchObject({ bodyMm: 240, passMm: 300, easeMm: 22 })
    expect(forPerson(fit({ kind: 'ring', bodyMm: 54 }), person())).toMatchObject({ bodyMm: 54, passMm: 0 })
    expect(forPerson(fit(), person({ measures: measuresSchema.parse({}) }))).toMatchObject({ bodyMm: 164, passMm: 0 })
  })
  it('has the room that she likes at the wrist, where nothing stretches', () => {
    expect(forPerson(fit(), person({ easeMm: null })).easeMm).toBe(22)
    expect(forPerson(fit({ closure: usualClosure('elastic'), easeMm: -3 }), person()).easeMm).toBe(-3)
    expect(forPerson(fit({ kind: 'choker' }), person()).easeMm).toBe(22)
  })
  it('hangs from what her ears take, at the length that one has', () => {
    const earrings = fit({ kind: 'earrings', closure: { ...usualClosure('ear-wire'), lengthMm: 5 } })
    expect(forPerson(earrings, person()).closure).toEqual(usualClosure('clip'))
    expect(forPerson(earrings, person({ ear: '' })).closure).toBe(earrings.closure)
    expect(forPerson(earrings, person({ ear: 'ear-wire' })).closure).toBe(earrings.closure)
    expect(forPerson(fit(), person()).closure).toEqual(usualClosure('toggle'))
  })
})

describe('the fit with another closure', () => {
  it('keeps its room from clasp to clasp, and has none to spare with elastic', () => {
    expect(withClosure(fit(), usualClosure('hook'))).toMatchObject({ easeMm: 22, closure: { kind: 'hook' } })
    expect(withClosure(fit(), { ...usualClosure('toggle'), lengthMm: 19 })).toMatchObject({
      easeMm: 22,
      closure: { lengthMm: 19 },
    })
    // Elastic is as long as the wrist or up to 5 mm less: half of that.
    expect(withClosure(fit(), usualClosure('elastic')).easeMm).toBe(-2.5)
  })
  it('has the usual room again once elastic goes, where its kind has one', () => {
    const elastic = fit({ closure: usualClosure('elastic'), easeMm: -2.5 })
    expect(withClosure(elastic, usualClosure('toggle')).easeMm).toBe(13)
    expect(withClosure(elastic, { ...usualClosure('elastic'), lengthMm: 1 }).easeMm).toBe(-2.5)
    expect(withClosure({ ...elastic, kind: 'choker' }, usualClosure('hook')).easeMm).toBe(-2.5)
  })
})
