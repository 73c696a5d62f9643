import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { GOLDEN_PIECES, outputsOf, printOf } from './outputs'

const golden = JSON.parse(readFileSync(new URL('./golden.json', import.meta.url), 'utf8')) as Record<
  string,
  Record<string, string>
>

/**
 * What leaves Weben of the demo and of the worked examples is, to the byte, what it was. Where it is meant to change:
 * `npx tsx tests/golden/write.ts`, and say so in the commit. `npx tsx tests/golden/write.ts FOLDER` writes the outputs
 * themselves, to be compared with those of another checkout.
 */
describe('what leaves Weben of a piece is what it was', () => {
  it('for every piece of the demo and of the worked examples', () => {
    expect(GOLDEN_PIECES.map((p) => p.name)).toEqual(Object.keys(golden))
  })
  it.each(GOLDEN_PIECES.map((p) => [p.name, p.piece] as const))('%s', async (name, piece) => {
    const prints = Object.entries(await outputsOf(piece)).map(([what, output]) => [what, printOf(output)])
    expect(Object.fromEntries(prints)).toEqual(golden[name])
  })
})
