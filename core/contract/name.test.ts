import { describe, expect, it } from 'vitest'
import { signInName } from './name'

const read = (text: string) => {
  const name = signInName.safeParse(text)
  return name.success ? name.data : null
}

describe('a name to sign in with', () => {
  it('is one however it is typed', () => {
    expect(read('  Marta   B ')).toBe('Marta B')
    // The same letters composed and decomposed, wide and narrow, with a ligature (Unicode Standard Annex 15).
    expect(read('Zoe\u0308')).toBe(read('Zo\u00EB'))
    expect(read('\uFF2D\uFF41\uFF52\uFF54\uFF41')).toBe('Marta')
    expect(read('\uFB01ne')).toBe('fine')
    expect(read('Ma\u00A0rta')).toBe('Ma rta')
  })
  it.each(['\u200B', '\u200D', '\u202E', '\u0007', '\u00AD', '\u3164', '\u{E0041}'])(
    'holds nothing that cannot be seen: %j',
    (unseen) => {
      expect(read(`Mar${unseen}ta`)).toBeNull()
    },
  )
  it('has two letters at least and eighty at most, counted as they are compared', () => {
    expect(
      [read('a'), read(' a '), read('ab'), read('a'.repeat(80)), read('a'.repeat(81))].map((n) => n !== null),
    ).toEqual([false, false, true, true, false])
    expect(read('\uFDFA'.repeat(8))).toBeNull()
  })
})
