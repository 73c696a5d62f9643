import fc from 'fast-check'
import { decode } from 'fast-png'
import { describe, expect, it } from 'vitest'
import { hungPart, joint } from '../../tests/fixture/joint'
import { bead, piece } from '../../tests/fixture/piece'
import { emptyCells } from '../grid/cells'
import { layOutAll } from '../piece/joint'
import type { Part } from '../piece/piece'
import { SIDES, type Joint } from '../piece/schema'
import { pictureOf } from './picture'
import { drawnSize } from '../piece/drawn-size'
import { flipOf, screenOfWork, screenPoint, sizeOnScreen, type View } from './view'
import { boxOfWhole, placedOf, ringsOf, viewBeside, wholeOf } from './whole'

const made = (id: string, technique: string, on: Joint | null, columns: number, rows: number, number = 1): Part =>
  hungPart(id, technique, on, { columns, rows, number })
const anyView: fc.Arbitrary<View> = fc
  .record({
    lie: fc.constantFrom('level' as const, 'upright' as const),
    scale: fc.double({ min: 1, max: 20, noNaN: true }),
    x: fc.integer({ min: -300, max: 300 }),
    y: fc.integer({ min: -300, max: 300 }),
    wrongSide: fc.boolean(),
    turned: fc.boolean(),
  })
  .map(({ wrongSide, turned, ...view }) => ({ ...view, flip: flipOf({ wrongSide, turned }) }))
const anySides = fc.tuple(fc.constantFrom(...SIDES), fc.constantFrom(...SIDES))

/** Which way round a part is seen: 1 from its right side, −1 from its wrong one. */
function hand(p: Part, view: View): number {
  const [o, a, b] = [screenOfWork(p, view, 0, 0), screenOfWork(p, view, 1, 0), screenOfWork(p, view, 0, 1)]
  return Math.sign((a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x))
}

describe('how joined parts are seen', () => {
  it('lie on the screen as they lie in the whole, the same side up, whichever of them is in hand', () => {
    fc.assert(
      fc.property(anyView, anySides, anySides, (view, [at, by], [at2, by2]) => {
        const parts = [
          made('band', 'loom', null, 6, 9),
          made('b', 'brick', joint({ at, by, link: { kind: 'ring', mm: 3 } }), 4, 5),
          made('c', 'peyote', joint({ part: 'b', at: at2, by: by2 }), 4, 7),
        ]
        const whole = wholeOf(parts)
        const placed = parts.map((p) => placedOf(whole, p))
        const views = placed.map((p) => viewBeside(placed[0]!, view, p))
        // The one in hand is where it was.
        expect(views[0]!.lie).toBe(view.lie)
        expect(views[0]!.x).toBeCloseTo(view.x, 6)
        expect(views[0]!.y).toBeCloseTo(view.y, 6)
        views.forEach((v, k) => {
          expect(hand(parts[k]!, v)).toBe(hand(parts[0]!, view))
          // Each box has on the screen the size that it has in the whole.
          const size = sizeOnScreen(parts[k]!, v)
          const own = drawnSize(parts[k]!)
          expect(Math.max(size.width, size.height)).toBeCloseTo(Math.max(own.width, own.length) * view.scale, 6)
          // Taken in hand, it sees all others where they are.
          views.forEach((w, j) => {
            const again = viewBeside(placed[k]!, v, placed[j]!)
            expect([again.lie, again.flip]).toEqual([w.lie, w.flip])
            expect(Math.hypot(again.x - w.x, again.y - w.y)).toBeLessThan(1e-6)
          })
        })
        // Sides that are joined are as far apart as the link is long.
        const middle = (p: Part, v: View) => {
          const { width, length } = drawnSize(p)
          return (side: string) =>
            screenOfWork(
              p,
              v,
              side === 'left' ? 0 : side === 'right' ? width : width / 2,
              side === 'start' ? 0 : side === 'end' ? length : length / 2,
            )
        }
        const from = middle(parts[0]!, views[0]!)(at)
        const to = middle(parts[1]!, views[1]!)(by)
        expect(Math.hypot(to.x - from.x, to.y - from.y)).toBeCloseTo(3 * view.scale, 6)
      }),
    )
  })
  it('a cell of a part that hangs lies inside the box of all', () => {
    const parts = [made('band', 'loom', null, 10, 8), made('b', 'loom', joint({ at: 'right' }), 4, 12)]
    const whole = wholeOf(parts)
    const view: View = { lie: 'level', scale: 5, x: 40, y: 30 }
    const box = boxOfWhole(whole, parts[0]!, view)
    const there = viewBeside(placedOf(whole, parts[0]!), view, placedOf(whole, parts[1]!))
    const point = screenPoint(parts[1]!, there, 3, 11)
    expect(point.x > box.x && point.x < box.x + box.width).toBe(true)
    expect(point.y > box.y && point.y < box.y + box.height).toBe(true)
    expect(box.height).toBeCloseTo((drawnSize(parts[0]!).width + drawnSize(parts[1]!).length) * 5, 6)
  })
  it('parts that hang on nothing lie side by side', () => {
    const parts = [made('band', 'loom', null, 10, 8), made('b', 'loom', null, 4, 12)]
    const whole = layOutAll(parts, drawnSize, 8)
    const [a, b] = whole.placed
    expect(b!.x - (a!.x + a!.width)).toBeCloseTo(8, 9)
    expect([a!.y, b!.y]).toEqual([0, 0])
    expect(whole.width).toBeCloseTo(a!.width + 8 + b!.width, 9)
  })
})

describe('links', () => {
  it('a ring reaches a little over both edges; a chain is links of about 3 mm, one in the other', () => {
    const at = (p: { x: number; y: number }) => ({ x: 10 * p.x, y: 10 * p.y })
    const tie = (kind: 'ring' | 'chain', mm: number) => ({ kind, from: { x: 0, y: 0 }, to: { x: 0, y: mm } })
    const [ring] = ringsOf(tie('ring', 6), at, 10)
    expect(ring).toMatchObject({ x: 0, y: 30 })
    expect(2 * (ring!.radius + ring!.half)).toBeCloseTo(10 * (6 + 1.8), 6)
    const chain = ringsOf(tie('chain', 22.2), at, 10)
    expect(chain).toHaveLength(8)
    expect(chain[1]!.y - chain[0]!.y).toBeLessThan(chain[0]!.radius + chain[1]!.radius + 2 * chain[0]!.half)
  })
})

describe('a picture of joined parts', () => {
  const tray = [bead(1, { colour: '#000000', finish: 'matte' }), bead(2, { colour: '#ffffff', finish: 'matte' })]
  const options = { lie: 'upright', scale: 6, ground: '#808080', glyphs: false, margin: 10 } as const
  it('shows all that hangs together, and nothing else', () => {
    const p = piece({
      tray,
      parts: [
        made('band', 'loom', null, 6, 8),
        made('drop', 'loom', joint({ link: { kind: 'ring', mm: 5 } }), 3, 10, 2),
        made('else', 'loom', null, 30, 30),
      ],
    })
    const [band, drop] = p.parts as [Part, Part]
    const alone = decode(pictureOf(band, tray, options))
    const all = decode(pictureOf(band, tray, { ...options, parts: p.parts }))
    expect(all.width).toBe(alone.width)
    const length = drawnSize(band).length + 5 + drawnSize(drop).length
    expect(all.height).toBe(Math.ceil(length * 6) + 20)
    // Upright, the work rises: the drop that hangs on the last row is above, white; the band below, black.
    const light = (y: number) => all.data[(Math.round(y) * all.width + Math.round(all.width / 2)) * 4]!
    expect(light(10 + drawnSize(drop).length * 3)).toBeGreaterThan(200)
    expect(light(all.height - 10 - drawnSize(band).length * 3)).toBeLessThan(60)
    // Where nobody lays beads, nothing shows.
    const gaps = { ...drop, repeat: emptyCells(3, 10, 0) }
    const empty = decode(pictureOf(band, tray, { ...options, parts: [band, gaps] }))
    const at = (Math.round(10 + drawnSize(drop).length * 3) * empty.width + Math.round(empty.width / 2)) * 4
    expect([...empty.data.slice(at, at + 3)]).toEqual([128, 128, 128])
  })
  it('of a part by itself is what it was', () => {
    const p = made('band', 'loom', null, 6, 8)
    expect(pictureOf(p, tray, { ...options, parts: [p] })).toEqual(pictureOf(p, tray, options))
    const hung = { ...p, on: joint({ part: 'not here' }) }
    expect(pictureOf(hung, tray, options)).toEqual(pictureOf(p, tray, options))
  })
})
