import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isSound, parseJson, shortened } from './text'

const codes = (json: string) => {
  const read = parseJson(json)
  return read.ok ? [] : read.problems.map((p) => p.code)
}

describe('a text', () => {
  it('is sound where the platform says that it is well formed, and no NUL is in it', () => {
    const units = fc.array(fc.constantFrom('a', 'é', '\uD83D', '\uDE00', '\0', '😀'), { maxLength: 6 })
    fc.assert(
      fc.property(units, (list) => {
        const text = list.join('')
        expect(isSound(text)).toBe(text.isWellFormed() && !text.includes('\0'))
      }),
    )
  })
  it('is shortened without halving a character', () => {
    expect(shortened('abc', 2)).toBe('ab')
    expect(shortened('a😀b', 2)).toBe('a')
    expect(shortened('a😀b', 3)).toBe('a😀')
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.nat(12), (text, most) => {
        const short = shortened(text, most)
        expect(isSound(short)).toBe(true)
        expect(text.startsWith(short)).toBe(true)
        expect(short.length).toBeLessThanOrEqual(most)
        expect(short.length).toBeGreaterThanOrEqual(Math.min(text.length, most) - 1)
      }),
    )
  })
})

describe('JSON from outside', () => {
  it('is read as it is', () => {
    fc.assert(
      fc.property(fc.json({ maxDepth: 8 }), (json) => {
        expect(parseJson(json)).toEqual({ ok: true, value: JSON.parse(json) })
      }),
    )
    expect(parseJson(JSON.stringify({ 'a[': '{"\\u0000' }))).toMatchObject({ ok: true })
  })
  it('is refused where it is nested endlessly, broken off, or holds half a character', () => {
    const nested = (depth: number) => `${'['.repeat(depth)}${']'.repeat(depth)}`
    expect([nested(24), nested(25), nested(200_000)].map(codes)).toEqual([[], ['too-deep'], ['too-deep']])
    expect(codes('{"a":'.repeat(30))).toEqual(['too-deep'])
    expect([codes('{"a": 1'), codes(''), codes('"\\')]).toEqual([['not-json'], ['not-json'], ['not-json']])
    const unsound = ['{"a":["x\\u0000"]}', '{"\\ud83d":1}', '[["\\uDE00"]]', '"a\\uD83D b"', '"\uD83D"']
    expect(unsound.map(codes)).toEqual(unsound.map(() => ['text-unsound']))
    expect(codes('{"a":"\\ud83d\\ude00"}')).toEqual([])
  })
})
