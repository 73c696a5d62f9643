import { describe, expect, it } from 'vitest'
import { isoFromUs } from '../units/ring-size'
import { ringMarks, ringStripSvg, SCALE_BAR_MM, wristStripSvg, WRIST_STRIP_MM } from './strip-svg'

const strokes = (svg: string) =>
  [...svg.matchAll(/<path d="M([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)"/g)].map(
    (m) => m.slice(1).map(Number) as [number, number, number, number],
  )

describe('strips', () => {
  it.each([
    ['wrist', wristStripSvg()],
    ['ring', ringStripSvg()],
  ])('the %s strip is drawn one unit to the millimetre and carries a bar of 50 mm', (_, svg) => {
    const [, width, height] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg)!
    expect(svg).toContain(`viewBox="0 0 ${width} ${height}"`)
    expect(strokes(svg).some(([x1, y1, x2, y2]) => x1 === x2 && Math.abs(y2 - y1 - SCALE_BAR_MM) < 1e-9)).toBe(true)
    expect(Number(height)).toBeLessThan(259)
  })
  it('the wrist strip has a mark at each millimetre and at each eighth of an inch', () => {
    const marks = strokes(wristStripSvg()).filter(([, y1, , y2]) => y1 === y2)
    const left = marks.filter(([x]) => x === 2).map(([, y]) => y - 12)
    expect(left).toEqual(expect.arrayContaining([100, 170, WRIST_STRIP_MM]))
    expect(marks.some(([x, y]) => x === 22 && Math.abs(y - 12 - 7 * 25.4) < 1e-3)).toBe(true)
  })
  it('the ring strip has every size at its own round', () => {
    const seven = ringMarks().find((m) => m.system === 'US' && m.label === '7')!
    expect(seven.iso).toBe(isoFromUs(7))
    expect(ringMarks().find((m) => m.label === 'C')!.iso).toBe(40)
    expect(strokes(ringStripSvg()).some(([, y]) => Math.abs(y - 14 - isoFromUs(7)) < 1e-3)).toBe(true)
  })
})
