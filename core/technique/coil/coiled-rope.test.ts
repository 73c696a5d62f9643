import { requireLattice } from '../stitch'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { gramsOf, requireSpec } from '../../bead/spec'
import { helixTurnMm } from '../../supply/wire'
import { beadCentre, neighbourOffsets } from '../lattice'
import { requireTechnique } from '../registry'
import { strungTimes, turnMm } from './coiled-rope'

const coil = requireTechnique('coil')
const work = (columns: number, rows: number, settings: Record<string, unknown> = {}) => ({
  columns,
  rows,
  bead: requireSpec('round-8'),
  settings: coil.settings.parse(settings),
})

describe('the coiled rope', () => {
  it('takes a turn as long as the helix through its beads, walked in small steps', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 200 }),
        fc.constantFrom('round-8', 'round-11', 'round-6'),
        (core, spec) => {
          const { d } = requireSpec(spec)
          const [r, n] = [(core / 10 + d) / 2, 4000]
          const at = (t: number) => [r * Math.cos(2 * Math.PI * t), r * Math.sin(2 * Math.PI * t), d * t] as const
          let walked = 0
          for (let i = 0; i < n; i++) walked += Math.hypot(...at((i + 1) / n).map((v, k) => v - at(i / n)[k]!))
          expect(turnMm({ coreMm: core / 10, spacing: 1 }, { d })).toBeCloseTo(walked, 4)
          expect(turnMm({ coreMm: core / 10, spacing: 1.3 }, { d })).toBeCloseTo(helixTurnMm(core / 10, d, 1.3 * d), 9)
        },
      ),
      { numRuns: 20 },
    )
  })
  it(
    'strings about six times the core for 8/0 on 3 to 4 mm unless a test inch says otherwise, and 28 g are ' +
      'about 96 inches (common practice)',
    () => {
      const d = requireSpec('round-8')
      const usual = coil.settings.parse({}) as { coreMm: number; spacing: number }
      expect(strungTimes(usual, d)).toBeCloseTo(6.1, 1)
      for (const coreMm of [3, 3.5, 4]) expect(Math.abs(strungTimes({ ...usual, coreMm }, d) - 6)).toBeLessThan(0.6)
      // turns side by side would take more
      expect(strungTimes({ coreMm: 3.5, spacing: 1 }, d)).toBeCloseTo(6.9, 1)
      const beads = 28 * d.perGram
      expect(gramsOf(beads, d)).toBeCloseTo(28, 9)
      expect(Math.abs((beads * d.l) / 25.4 / 96 - 1)).toBeLessThan(0.08)
    },
  )
  it('lies bead beside bead along the string, and turn beside turn', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.constantFrom('right', 'left'),
        fc.integer({ min: 20, max: 60 }),
        (columns, way, core) => {
          const w = work(columns, 8, { way, coreMm: core / 10 })
          const lattice = requireLattice(coil, w)
          const girth = Math.PI * (core / 10 + w.bead.d)
          const round = (mm: number) => Math.abs((((mm % girth) + 1.5 * girth) % girth) - girth / 2)
          for (let i = 0; i + 1 < columns * 8; i++) {
            const [a, b] = [i, i + 1].map((k) => beadCentre(lattice, k % columns, Math.floor(k / columns)))
            expect(Math.hypot(round(b!.x - a!.x), b!.y - a!.y)).toBeCloseTo(w.bead.l, columns === 1 ? -0.5 : 0)
          }
          // the bead before and after in the string are among those it touches
          if (columns > 2)
            expect(neighbourOffsets(lattice, 1, 3)).toEqual(
              expect.arrayContaining([
                { c: 1, r: 0 },
                { c: -1, r: 0 },
              ]),
            )
        },
      ),
      { numRuns: 40 },
    )
  })
  it('needs wire for every bead and core for the length, and grows with its core', () => {
    const w = work(10, 20)
    const [wire, core] = coil.path(w).runs
    expect(wire!.lengthMm).toBeCloseTo(200 * 2.1 * 1.05 + 80, 9)
    expect(core!.lengthMm).toBeCloseTo(coil.growth.lengthOf(w) + 20, 9)
    expect(coil.growth.lengthOf(work(10, 20, { coreMm: 5 }))).toBeLessThan(coil.growth.lengthOf(w))
    expect(coil.growth.widthOf(w)).toBeCloseTo(3.5 + 6, 9)
    expect(coil.check(work(121, 2))[0]!.says).toContain('Take 120')
  })
})
