import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, describe, expect, it, vi } from 'vitest'
import { DEMO_PIECES } from '../demo/pieces'
import { SAMPLER } from '../demo/sampler'
import { WORKSHOP } from '../tests/fixture/workshop'
import { fitsWell } from '../core/fit/feel'
import { fitOf } from '../core/fit/reckon'
import { writePieceFile } from '../core/format/piece-file'
import type { reportPiece } from '../core/format/report'
import { checkPiece, strayNumbers } from '../core/piece/codec'
import { readinessOf } from '../core/proof/readiness'
import { unusedBeads } from '../core/proof/rule/unused'
import { makingOf } from '../core/technique/making'
import { TECHNIQUES } from '../core/technique/registry'
import { shelfValueSchema } from '../core/shelf/shelf'
import { DEMO_SHELF } from '../demo/shelf'
import { readStartOptions } from './start'

const root = resolve(import.meta.dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'weben-launcher-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const launch = (...args: string[]) =>
  spawnSync(process.execPath, ['--import', 'tsx', join(root, 'launcher/main.ts'), ...args], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, WEBEN_CALLER: folder },
  })

// Starting a Node process takes seconds on a busy machine.
vi.setConfig({ testTimeout: 60_000 })

describe('./weben report', () => {
  it('prints what the core computes, for a file named from where the caller stands', () => {
    writeFileSync(join(folder, 'reed.json'), writePieceFile(DEMO_PIECES[0]!))
    const { status, stdout } = launch('report', 'reed.json')
    const report = JSON.parse(stdout) as {
      name: string
      tally: { beads: number }
      parts: { tally: { byRow: { beads: number }[] } }[]
    }
    expect(status).toBe(0)
    expect(report.name).toBe('Reed bank cuff')
    expect(report.parts[0]!.tally.byRow.reduce((sum, r) => sum + r.beads, 0)).toBe(report.tally.beads)
  })
  it('prints counts, passes by hole, ways of the carriers and words of a recipe of one’s own', () => {
    const twig = DEMO_PIECES.find((p) => p.parts[0]!.technique === 'own-recipe')!
    writeFileSync(join(folder, 'twig.json'), writePieceFile(twig))
    const { parts } = JSON.parse(launch('report', 'twig.json').stdout) as ReturnType<typeof reportPiece>
    const { told, findings, tally } = parts[0]!
    // By hand: 22 leaves of five beads, a sloe and a turning seed; three stem beads each, and loops of seven.
    expect(told!.slots.map(({ slot, beads, holes }) => [slot, beads, holes[0]!.passes, holes[0]!.most])).toEqual([
      ['stem', 83, 85, 2],
      ['leaf', 110, 220, 2],
      ['sloe', 22, 44, 2],
      ['turn', 22, 22, 1],
    ])
    const { throughMm, roundMm } = told!.carriers[0]!
    expect(throughMm).toBeCloseTo(85 * 2.1 + 220 * 1.4 + 44 * 4 + 22 * 1.4, 6)
    expect(roundMm).toBe(20)
    expect(findings).toEqual([])
    expect(tally.byRow[1]!.words).toContain('back through the sloe; all 5 leaf beads')
  })
  it('says what is wrong and ends with 1', () => {
    writeFileSync(join(folder, 'bad.json'), '{"format":"weben-piece","version":9}')
    for (const [args, words] of [
      [['report', 'bad.json'], 'newer Weben'],
      [['report', 'none.json'], 'cannot be read'],
      [['report'], './weben report FILE'],
      [['knit'], '“knit” is not a command'],
    ] as const) {
      const { status, stderr } = launch(...args)
      expect(status).toBe(1)
      expect(stderr).toContain(words)
    }
  })
})

describe('./weben start', () => {
  it('reads its options or says how to write them', () => {
    expect(readStartOptions([])).toEqual({ port: 4173, host: '127.0.0.1', empty: false })
    expect(readStartOptions(['--port', '5000', '--empty'])).toMatchObject({ port: 5000, empty: true })
    expect(() => readStartOptions(['--port', 'here'])).toThrow(/not a port/)
    expect(() => readStartOptions(['--loud'])).toThrow(/Use: \.\/weben start/)
  })
})

describe('the demo workshop', () => {
  it('has a box of sound beads, sizes, stamps and recipes', () => {
    for (const value of DEMO_SHELF) expect(shelfValueSchema.safeParse(value).error).toBeUndefined()
    expect(new Set(DEMO_SHELF.map((v) => v.kind))).toEqual(
      new Set(['bead', 'thread', 'finding', 'spec', 'stamp', 'person', 'gauge', 'recipe']),
    )
  })
  it('is sound: every piece passes its checks, uses its beads and can be threaded', () => {
    expect(DEMO_PIECES.length).toBe(45)
    expect(new Set(DEMO_PIECES.map((p) => makingOf(p.parts[0]!.technique).id))).toEqual(
      new Set(TECHNIQUES.map((t) => makingOf(t.id).id)),
    )
    expect(new Set(WORKSHOP.flatMap((p) => p.parts.map((part) => part.technique)))).toEqual(
      new Set(TECHNIQUES.map((t) => t.id)),
    )
    // The sampler is there for its mistakes; what they are is held by its own test.
    for (const p of WORKSHOP.filter((one) => one.name !== SAMPLER.name)) {
      expect([p.name, checkPiece(p), strayNumbers(p), unusedBeads(p), readinessOf(p).supplies]).toEqual([
        p.name,
        [],
        [],
        [],
        0,
      ])
    }
    expect(DEMO_PIECES.filter((p) => fitsWell(fitOf(p).feel)).length).toBeGreaterThanOrEqual(4)
  })
})
