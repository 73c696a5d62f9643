import { raggedFrom } from '#core/grid/lines'
import type { Part, Piece } from '#core/piece/piece'
import { findTechnique } from '#core/technique/registry'
import type { Settings } from '#core/technique/technique'
import { part, piece } from '../fixture/piece'

/** Lines written as letters: A is bead 1, a dot is an empty place. */
export const lines = (...written: string[]) =>
  raggedFrom(written.map((line) => [...line].map((ch) => (ch === '.' ? 0 : ch.charCodeAt(0) - 64))))

/** A fan of strands, where the guest is known. */
export function fanPart(over: Partial<Part> = {}): Part {
  const fan = findTechnique('fan')
  return {
    ...part(),
    id: 'fan',
    name: 'Fan',
    technique: 'fan',
    settings: (fan?.settings.parse({}) ?? {}) as Settings,
    plan: fan?.plan?.parse({}) ?? {},
    spec: 'round-11',
    times: 2,
    start: lines('AA', 'AAB'),
    repeat: lines('ABCB', 'AABBC', 'ABCB'),
    end: lines('AAB', 'AA'),
    ...over,
  }
}

export const fanPiece = (over: Partial<Part> = {}): Piece => piece({ name: 'Test fan', parts: [fanPart(over)] })
