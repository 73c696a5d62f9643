import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { emptyCells } from '#core/grid/cells'
import { layingSteps } from '#core/piece/edit'
import { EMPTY_HISTORY, recorded, takeBack, type History } from '#core/piece/history'
import { columnsOf, lengthOfLine, numberAt, rowsOf, wholePart, type Part, type Piece } from '#core/piece/piece'
import { SYMMETRIES } from '#core/pattern/symmetry'
import { applySteps } from '#core/piece/step'
import { valueOf } from '#core/problem'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { anyWish, play } from '../../tests/fixture/step'
import { makePainter, type Scene, type Target } from './painter'
import { toolOf, TOOLS, type Ground } from './tool/tool'
import { moved, placeAt, pointOf, showing, viewOfAll, viewToBegin, zoomed, type Seen } from './view'
import { sizeOnScreen } from '#core/picture/view'
import { boxOfWhole, wholeOf } from '#core/picture/whole'

class Picture {
  constructor(
    readonly data: Uint8ClampedArray,
    readonly width: number,
    readonly height: number,
  ) {}
}
beforeAll(() => {
  ;(globalThis as { ImageData?: unknown }).ImageData ??= Picture
})

/** A screen that keeps what is put on it. */
function screen(width: number, height: number): Target & { pixels: Uint8ClampedArray } {
  const pixels = new Uint8ClampedArray(width * height * 4)
  return {
    pixels,
    putImageData(image, _x, _y, dx, dy, dw, dh) {
      for (let y = dy; y < dy + dh; y++)
        pixels.set(image.data.subarray((y * width + dx) * 4, (y * width + dx + dw) * 4), (y * width + dx) * 4)
    },
  }
}

const seenAlone = (part: Part): Seen => ({ part, whole: null })

const sceneOf = (p: Piece, over: Partial<Scene['view']> = {}): Scene => ({
  part: p.parts[0]!,
  whole: p.parts.length > 1 ? wholeOf(p.parts) : null,
  tray: p.tray,
  view: { lie: 'level', scale: 7.3, x: 4, y: 6, ...over },
  options: { ground: { r: 200, g: 190, b: 180 }, glyphs: false, nap: 3 },
})

function afresh(scene: Scene): Uint8ClampedArray {
  const target = screen(90, 70)
  const painter = makePainter()
  painter.resize(90, 70)
  painter.show(target, scene)
  return target.pixels
}

describe('the painter', () => {
  it('after any edits and moves shows what painting afresh shows', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.array(anyWish, { minLength: 1, maxLength: 5 }),
        fc.array(fc.tuple(fc.integer({ min: -30, max: 30 }), fc.integer({ min: -30, max: 30 })), { maxLength: 4 }),
        (p, wishes, pans) => {
          const painter = makePainter()
          const target = screen(90, 70)
          painter.resize(90, 70)
          let scene = sceneOf(p)
          painter.show(target, scene)
          for (const { after } of play(p, wishes)) {
            scene = { ...scene, part: after.parts[0]!, tray: after.tray }
            painter.show(target, scene)
            expect(Buffer.from(target.pixels).equals(Buffer.from(afresh(scene)))).toBe(true)
          }
          for (const [dx, dy] of pans) {
            scene = { ...scene, view: { ...scene.view, x: scene.view.x + dx, y: scene.view.y + dy } }
            expect(painter.show(target, scene)).not.toBe('all')
            expect(Buffer.from(target.pixels).equals(Buffer.from(afresh(scene)))).toBe(true)
          }
        },
      ),
      { numRuns: 60 },
    )
  })
  it('paints only what changed: nothing, a few cells, strips', () => {
    const p = piece()
    const painter = makePainter()
    const target = screen(90, 70)
    painter.resize(90, 70)
    expect(painter.show(target, sceneOf(p))).toBe('all')
    expect(painter.show(target, sceneOf(p))).toBe('nothing')
    const next = valueOf(applySteps(p, layingSteps(p.parts[0]!, new Map([[5, 3]]))))
    expect(painter.show(target, { ...sceneOf(p), part: next.parts[0]! })).toBe('parts')
    expect(painter.show(target, { ...sceneOf(p, { x: 14 }), part: next.parts[0]! })).toBe('pan')
    expect(painter.show(target, { ...sceneOf(p, { scale: 9 }), part: next.parts[0]! })).toBe('all')
  })
})

const ground = (p: Part, number = 2, over: Partial<Ground> = {}): Ground => ({
  part: p,
  number,
  clip: { columns: 2, rows: 1, numbers: [3, 3], c: 0, r: 0 },
  selection: { c: 0, r: 0, columns: 2, rows: 1 },
  symmetry: 'none',
  ...over,
})
const laidBy = (
  p: Part,
  id: Parameters<typeof toolOf>[0],
  path: [number, number][],
  number = 2,
  over: Partial<Ground> = {},
): string[] => {
  const tool = toolOf(id)
  const places = path.map(([c, r]) => ({ c, r }))
  let g = tool.down(ground(p, number, over), places[0]!)
  for (const place of places.slice(1)) g = tool.move(ground(p, number, over), g, place)
  const next = valueOf(
    applySteps(piece({ parts: [p], tray: [bead(1), bead(2), bead(3)] }), tool.up(ground(p, number, over), g).steps),
  ).parts[0]!
  return Array.from({ length: rowsOf(next) }, (_, r) =>
    Array.from({ length: columnsOf(next) }, (_, c) => '.ABC'[numberAt(next, c, r)]).join(''),
  )
}

describe('tools', () => {
  const plain = part({
    technique: 'loom',
    settings: {},
    start: rows('AAAAA', 'AAAAA', 'AAAAA', 'AAAAA'),
    repeat: rows('AAAAA'),
    end: rows('AAAAA'),
    times: 0,
  })
  it.each([
    ['lay', [[0, 0]], ['BAAAA', 'AAAAA', 'AAAAA', 'AAAAA', 'AAAAA']],
    [
      'lay',
      [
        [0, 0],
        [3, 3],
      ],
      ['BAAAA', 'ABAAA', 'AABAA', 'AAABA', 'AAAAA'],
    ],
    [
      'run',
      [
        [1, 1],
        [3, 3],
      ],
      ['AAAAA', 'ABBBA', 'AAAAA', 'AAAAA', 'AAAAA'],
    ],
    [
      'line',
      [
        [4, 0],
        [4, 2],
        [0, 4],
      ],
      ['AAAAB', 'AAABA', 'AABAA', 'ABAAA', 'BAAAA'],
    ],
    [
      'box',
      [
        [3, 1],
        [1, 2],
      ],
      ['AAAAA', 'ABBBA', 'ABBBA', 'AAAAA', 'AAAAA'],
    ],
    [
      'move',
      [
        [0, 0],
        [2, 3],
      ],
      ['..AAA', 'AAAAA', 'AAAAA', 'AAAAA', 'AAAAA'],
    ],
    ['fill', [[2, 2]], ['BBBBB', 'BBBBB', 'BBBBB', 'BBBBB', 'BBBBB']],
    ['swap', [[2, 2]], ['BBBBB', 'BBBBB', 'BBBBB', 'BBBBB', 'BBBBB']],
    [
      'lift',
      [
        [2, 1],
        [2, 2],
      ],
      ['AAAAA', 'AA.AA', 'AA.AA', 'AAAAA', 'AAAAA'],
    ],
    ['take', [[2, 2]], ['AAAAA', 'AAAAA', 'AAAAA', 'AAAAA', 'AAAAA']],
    [
      'select',
      [
        [0, 0],
        [2, 2],
      ],
      ['AAAAA', 'AAAAA', 'AAAAA', 'AAAAA', 'AAAAA'],
    ],
    ['paste', [[3, 2]], ['AAAAA', 'AAAAA', 'AAACC', 'AAAAA', 'AAAAA']],
  ] as const)('%s along %j', (id, path, want) => {
    expect(laidBy(plain, id, path as unknown as [number, number][])).toEqual(want)
  })
  it.each([
    ['lay', 'across', [[0, 0]], ['BAAAB', 'AAAAA', 'AAAAA', 'AAAAA', 'AAAAA']],
    [
      'line',
      'along',
      [
        [0, 0],
        [1, 0],
      ],
      ['BBAAA', 'AAAAA', 'AAAAA', 'BBAAA', 'AAAAA'],
    ],
    [
      'box',
      'both',
      [
        [0, 0],
        [0, 0],
      ],
      ['BAAAB', 'AAAAA', 'AAAAA', 'BAAAB', 'AAAAA'],
    ],
    ['lift', 'turning', [[0, 1]], ['AAAAA', '.AAAA', 'AAAA.', 'AAAAA', 'AAAAA']],
    ['paste', 'across', [[0, 2]], ['AAAAA', 'AAAAA', 'CCACC', 'AAAAA', 'AAAAA']],
  ] as const)('%s with live symmetry %s', (id, symmetry, path, want) => {
    expect(laidBy(plain, id, path as unknown as [number, number][], 2, { symmetry })).toEqual(want)
  })
  it('any sequence of gestures undone is the start, redone is the end, in every stitch', () => {
    const anyGesture = fc.record({
      tool: fc.constantFrom(...TOOLS.map((t) => t.id)),
      symmetry: fc.constantFrom(...SYMMETRIES),
      number: fc.integer({ min: 1, max: 3 }),
      path: fc.array(fc.tuple(fc.nat(9), fc.nat(14)), { minLength: 1, maxLength: 4 }),
    })
    fc.assert(
      fc.property(anyPiece, fc.array(anyGesture, { minLength: 1, maxLength: 6 }), (p, gestures) => {
        let now = p
        let history: History = EMPTY_HISTORY
        for (const { tool: id, symmetry, number, path } of gestures) {
          const tool = toolOf(id)
          const own = now.parts[0]!
          if (rowsOf(own) === 0) return
          const at = path.map(([c, r]) => ({ c: c % columnsOf(own), r: r % rowsOf(own) }))
          let g = tool.down(ground(own, number, { symmetry }), at[0]!)
          for (const place of at.slice(1)) g = tool.move(ground(own, number, { symmetry }), g, place)
          const { steps } = tool.up(ground(own, number, { symmetry }), g)
          if (steps.length === 0) continue
          now = valueOf(applySteps(now, steps)) as Piece
          history = recorded(history, { label: id, steps: [...steps] })
        }
        const whole = (q: Piece) => [...wholePart(q.parts[0]!)].join()
        const end = whole(now)
        for (let back = takeBack(history, 'undo'); back; back = takeBack(history, 'undo')) {
          now = valueOf(applySteps(now, back.entry.steps)) as Piece
          history = back.history
        }
        expect(whole(now)).toBe(whole(p))
        for (let again = takeBack(history, 'redo'); again; again = takeBack(history, 'redo')) {
          now = valueOf(applySteps(now, again.entry.steps)) as Piece
          history = again.history
        }
        expect(whole(now)).toBe(end)
      }),
      { numRuns: 150 },
    )
  })
  it('take gives the bead under it, select the box', () => {
    const take = toolOf('take')
    expect(take.up(ground(plain), take.down(ground(plain), { c: 1, r: 1 })).take).toBe(1)
    const select = toolOf('select')
    expect(
      select.up(ground(plain), select.move(ground(plain), select.down(ground(plain), { c: 3, r: 2 }), { c: 1, r: 0 }))
        .select,
    ).toEqual({ c: 1, r: 0, columns: 3, rows: 3 })
  })
  it('each has a key of its own', () => expect(new Set(TOOLS.map((t) => t.key)).size).toBe(TOOLS.length))
  it('any gesture, anywhere, makes steps that apply and can be taken back', () => {
    const spot = fc.tuple(fc.integer({ min: -3, max: 12 }), fc.integer({ min: -3, max: 20 }))
    fc.assert(
      fc.property(
        anyPiece,
        fc.constantFrom(...TOOLS.map((t) => t.id)),
        fc.array(spot, { minLength: 1, maxLength: 4 }),
        (p, id, path) => {
          const tool = toolOf(id)
          const g0 = ground(p.parts[0]!)
          let g = tool.down(g0, { c: path[0]![0], r: path[0]![1] })
          for (const [c, r] of path.slice(1)) g = tool.move(g0, g, { c, r })
          expect(applySteps(p, tool.up(g0, g).steps).ok).toBe(true)
        },
      ),
    )
  })
})

describe('the view', () => {
  const size = { width: 900, height: 600 }
  it('finds the bead that lies at a bead’s own point, however it is seen', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.constantFrom('level' as const, 'upright' as const),
        fc.double({ min: 0.5, max: 40, noNaN: true }),
        fc.nat(),
        fc.nat(),
        (p, lie, scale, a, b) => {
          const one = p.parts[0]!
          if (rowsOf(one) === 0) return
          const place = { c: a % columnsOf(one), r: b % rowsOf(one) }
          // Behind the end of a line nothing lies.
          if (place.c >= lengthOfLine(one, place.r)) return
          const view = { lie, scale, x: 13, y: -40 }
          const at = pointOf(one, view, place)
          expect(placeAt(one, view, at.x, at.y)).toEqual(place)
        },
      ),
    )
  })
  it('zooms about the point under the hand', () => {
    const one = part({ times: 40 })
    const view = viewOfAll(seenAlone(one), { lie: 'level' }, size)
    const at = { x: 333, y: 222 }
    const closer = zoomed(view, 2, at)
    expect(placeAt(one, closer, at.x, at.y)).toEqual(placeAt(one, view, at.x, at.y))
    expect(closer.scale).toBeCloseTo(2 * view.scale, 9)
  })
  it('shows all when asked, and never loses the work', () => {
    for (const lie of ['level', 'upright'] as const) {
      const one = part({ times: 300 })
      const view = viewOfAll(seenAlone(one), { lie }, size)
      for (const place of [
        { c: 0, r: 0 },
        { c: 3, r: rowsOf(one) - 1 },
      ]) {
        const p = pointOf(one, view, place)
        expect(p.x > 0 && p.x < size.width && p.y > 0 && p.y < size.height).toBe(true)
      }
      const far = moved(seenAlone(one), viewToBegin(seenAlone(one), { lie }, size), -1e6, 1e6, size)
      expect(far.y).toBeLessThan(size.height)
      const seen = pointOf(one, showing(one, far, { c: 0, r: 5 }, size), { c: 0, r: 5 })
      expect(seen.x >= 0 && seen.x <= size.width && seen.y >= 0 && seen.y <= size.height).toBe(true)
    }
  })
  it('leaves upright work its rule on the right, on a phone too', () => {
    const phone = { width: 372, height: 520 }
    for (const rows of [6, 12, 40]) {
      const one = part({ start: emptyCells(30, 0), repeat: emptyCells(30, 2, 1), end: emptyCells(30, 0), times: rows })
      for (const view of [viewOfAll, viewToBegin].map((see) => see(seenAlone(one), { lie: 'upright' }, phone))) {
        const { width } = sizeOnScreen(one, view)
        expect(view.x).toBeGreaterThanOrEqual(28)
        expect(view.x + width).toBeLessThanOrEqual(phone.width - 68 + 1)
      }
      // Under the tools and the scale.
      expect(viewOfAll(seenAlone(one), { lie: 'upright' }, phone).y).toBeGreaterThanOrEqual(104)
    }
  })
  it('shows all parts as they hang when asked, and at first where there is room; moved, some stay in sight', () => {
    const hung = (rows: number): Piece => {
      const top = part({ times: rows })
      return piece({
        parts: [
          top,
          {
            ...top,
            id: 'drop',
            on: { part: top.id, at: 'end', by: 'start', holes: [], link: { kind: 'ring', mm: 5 } },
          },
        ],
      })
    }
    for (const lie of ['level', 'upright'] as const) {
      for (const times of [2, 200]) {
        const p = hung(times)
        const [top] = p.parts as [Part]
        const seen: Seen = { part: top, whole: wholeOf(p.parts) }
        const inside = ({ x, y, width, height }: { x: number; y: number; width: number; height: number }) =>
          x >= 0 && y >= 0 && x + width <= size.width && y + height <= size.height
        expect(inside(boxOfWhole(seen.whole!, top, viewOfAll(seen, { lie }, size)))).toBe(true)
        const first = viewToBegin(seen, { lie }, size)
        // So long that all of it would be a thread: the part in hand is shown, as it would be alone.
        if (times === 200) expect(first).toEqual(viewToBegin(seenAlone(top), { lie }, size))
        else expect(inside(boxOfWhole(seen.whole!, top, first))).toBe(true)
        expect(first.scale).toBeLessThanOrEqual(13)
        const far = boxOfWhole(seen.whole!, top, moved(seen, first, 1e6, -1e6, size))
        expect(far.x).toBeLessThan(size.width)
        expect(far.y + far.height).toBeGreaterThan(0)
      }
    }
  })
})
