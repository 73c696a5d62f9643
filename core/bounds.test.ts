import { describe, expect, it } from 'vitest'
import { boundsOf } from './bounds'
import { closureSchema, costSchema, fitSchema, gaugeSchema, supplySchema } from './piece/schema'
import { TECHNIQUES } from './technique/registry'
import { tryParseNumber } from './units/number'

describe('bounds of a form field', () => {
  it('are those of the schema that checks it, whatever lies round it', () => {
    expect(boundsOf(supplySchema, 'batch')).toEqual({ least: 1, most: 999, whole: true })
    expect(boundsOf(supplySchema, 'tailMm')).toEqual({ least: 50, most: 500, whole: false })
    expect(boundsOf(closureSchema, 'extenderMm')).toEqual({ least: 0, most: 200, whole: false })
    expect(boundsOf(fitSchema, 'closure', 'openings')).toEqual({ least: 1, most: 8, whole: true })
    expect(boundsOf(costSchema, 'prepareMinutes')).toEqual({ least: 0, most: 1000, whole: true })
    expect(() => boundsOf(gaugeSchema, 'thread')).toThrow(/no bounds/)
    expect(() => boundsOf(supplySchema, 'nothing')).toThrow(/no field/)
  })
  it('are there for whatever a stitch lets one choose, and its own value lies in them', () => {
    let found = 0
    for (const { id, fields, settings } of TECHNIQUES) {
      for (const { key, kind } of fields.filter((f) => ['length', 'count', 'number'].includes(f.kind))) {
        found++
        const { least, most } = boundsOf(settings, key)
        expect([id, key, kind, least < most]).toEqual([id, key, kind, true])
        expect((settings.parse({}) as Record<string, number>)[key]).toBeGreaterThanOrEqual(least)
        expect(settings.safeParse({ [key]: most + 1 }).success).toBe(false)
      }
    }
    expect(found).toBeGreaterThan(15)
  })
})

describe('numbers as people type them', () => {
  const bounds = { least: 0, most: 50, whole: false }
  const read = (text: string, b = bounds, unit = '') => {
    const r = tryParseNumber(text, b, unit)
    return r.ok ? r.value : r.problems[0]!.says
  }
  it('take a point or a comma, and the unit behind', () => {
    expect([
      read('2.5'),
      read('2,5'),
      read(' 7 '),
      read('.5'),
      read('10 %', bounds, '%'),
      read('10%', bounds, '%'),
      read('−3', { ...bounds, least: -5 }),
    ]).toEqual([2.5, 2.5, 7, 0.5, 10, 10, -3])
  })
  it('say what to type otherwise', () => {
    expect(read('abc')).toBe('“abc” is not a number here. Type one from 0 to 50.')
    expect(read('')).toBe('Type a number from 0 to 50.')
    expect(read('1,500')).toContain('is not a number here')
    expect(read('51', bounds, '%')).toBe('At most 50 %, please.')
    expect(read('-1')).toBe('At least 0, please.')
    expect(read('2.5', { least: 1, most: 999, whole: true })).toBe('Type a whole number from 1 to 999.')
    expect(read('1e3')).toContain('not a number')
    expect(read('0.01', { least: 0.05, most: 2, whole: false })).toBe('At least 0.05, please.')
  })
})
