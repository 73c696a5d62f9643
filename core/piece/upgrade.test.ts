import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { part, piece } from '../../tests/fixture/piece'
import { requireTechnique } from '../technique/registry'
import { partToFile } from './codec'
import { readPieceFile, writePieceFile } from '../format/piece-file'
import { setStep } from './edit'
import { PIECE_VERSION } from './version'
import { applySteps, invertSteps, stepSchema, type Step } from './step'
import { upgradeBody, upgradeStep } from './upgrade'
import { valueOf } from '../problem'

describe('a piece of version 1', () => {
  it('is read as a bracelet, its wrist the measure, everything new at its usual value', () => {
    const now = JSON.parse(writePieceFile(piece())) as {
      version: number
      piece: { fit: Record<string, unknown>; supply: Record<string, unknown>; gauges?: unknown; cost?: unknown }
    }
    const { kind, wearer, bodyMm, easeMm, widthMm } = now.piece.fit
    now.version = 1
    now.piece.fit = { kind, wearer, wristMm: bodyMm, easeMm, widthMm, closure: { kind: 'toggle', lengthMm: 14 } }
    delete now.piece.gauges
    delete now.piece.cost
    const fresh = ['batch', 'hanks', 'sewPasses', 'elastics', 'earWireGauge']
    now.piece.supply = Object.fromEntries(Object.entries(now.piece.supply).filter(([field]) => !fresh.includes(field)))
    expect(valueOf(readPieceFile(JSON.stringify(now)))).toEqual(piece())
    // The same under the name of today is not accepted half.
    expect(readPieceFile(JSON.stringify({ ...now, version: PIECE_VERSION })).ok).toBe(false)
  })
  it('leaves what is new, or not to be understood, as it is', () => {
    expect(upgradeBody('nonsense')).toBe('nonsense')
    expect(upgradeBody({ fit: { bodyMm: 3 } })).toEqual({ fit: { bodyMm: 3 } })
  })
  it('has steps that still apply', () => {
    const p = piece()
    const old = { type: 'set' as const, path: ['fit', 'wristMm'], before: 170, after: 180 }
    expect(applySteps(p, [old]).ok).toBe(false)
    expect(valueOf(applySteps(p, [upgradeStep(old)])).fit.bodyMm).toBe(180)
    const coil = requireTechnique('coil')
    const rope = {
      ...piece(),
      parts: [part({ technique: 'coil', settings: coil.settings.parse({}), spec: 'round-8' })],
    }
    // kept from before coils could be spaced
    const { spacing, ...before } = coil.settings.parse({}) as Record<string, number | string>
    expect(spacing).toBe(1.13)
    const wider = valueOf(
      applySteps(rope, [
        { type: 'set', path: ['parts', 'band', 'settings'], before, after: { ...before, coreMm: 5 } },
      ]),
    )
    expect(wider.parts[0]!.settings.coreMm).toBe(5)
    expect(
      valueOf(
        applySteps(wider, [
          { type: 'set', path: ['parts', 'band', 'settings'], before: { ...before, coreMm: 5 }, after: before },
        ]),
      ).parts[0]!.settings.coreMm,
    ).toBe(3.5)
    expect(
      applySteps(rope, [
        { type: 'set', path: ['parts', 'band', 'settings'], before: { ...before, coreMm: 4 }, after: before },
      ]).ok,
    ).toBe(false)
    const kept = partToFile(rope.parts[0]!)
    const [tag, file] = [partToFile({ ...rope.parts[0]!, id: 'tag' }), { ...kept, settings: before }]
    expect(
      applySteps(rope, [
        { type: 'part', do: 'insert', at: 1, value: tag },
        { type: 'part', do: 'remove', at: 0, value: file },
      ]).ok,
    ).toBe(true)
    const other = setStep(p, ['fit', 'easeMm'], 3)
    expect(upgradeStep(other)).toBe(other)
  })
})

/** A piece, steps made on it and what came of them, as that version wrote them. */
interface Kept {
  readonly start: unknown
  readonly transactions: readonly (readonly Step[])[]
  readonly end: unknown
}

describe.each([1, 2])('what version %d wrote', (version) => {
  const kept = JSON.parse(
    readFileSync(new URL(`../../tests/fixture/version-${version}.json`, import.meta.url), 'utf8'),
  ) as Kept
  const start = valueOf(readPieceFile(JSON.stringify(kept.start)))
  const end = valueOf(readPieceFile(JSON.stringify(kept.end)))

  it('opens, with no part hanging on another', () => {
    expect((kept.start as { version: number }).version).toBe(version)
    expect([...start.parts, ...end.parts].map((p) => p.on)).toEqual([...start.parts, ...end.parts].map(() => null))
  })
  it('replays step by step to what it became, and can be taken back', () => {
    let now = start
    for (const steps of kept.transactions) {
      const upgraded = steps.map(upgradeStep)
      for (const step of upgraded) expect(stepSchema.safeParse(step).success).toBe(true)
      const next = valueOf(applySteps(now, upgraded))
      expect(valueOf(applySteps(next, invertSteps(upgraded)))).toEqual(now)
      now = next
    }
    expect(now).toEqual(end)
  })
  it('is written anew in the form of today', () => {
    const written = writePieceFile(end)
    expect((JSON.parse(written) as { version: number }).version).toBe(PIECE_VERSION)
    expect(valueOf(readPieceFile(written))).toEqual(end)
  })
})
