import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hungPart, joint } from '../../tests/fixture/joint'
import { piece } from '../../tests/fixture/piece'
import { hangStep } from './edit'
import {
  beadsOfSide,
  checkJoints,
  hangableOn,
  jointWords,
  layOut,
  layOutAll,
  linksOf,
  parseHoles,
  partsWith,
  rootOf,
  treeOf,
  turnOfJoint,
  type Turn,
} from './joint'
import type { Part } from './piece'
import { quarterTurnSteps, removePartSteps } from './recast'
import { SIDES, type Joint } from './schema'
import { applySteps, invertSteps } from './step'
import { valueOf } from '../problem'

const named = (id: string, on: Joint | null, columns = 4, rows = 6): Part =>
  hungPart(id, 'loom', on, { columns, rows })
const size = (p: Part) => ({ width: 2 * beadsOfSide(p, 'end'), length: 3 * beadsOfSide(p, 'left') })

describe('where parts lie', () => {
  it('one under the other: the length is that of both and of the link between', () => {
    const top = named('band', null, 10, 8)
    const drop = named('drop', joint({ link: { kind: 'ring', mm: 5 } }), 4, 6)
    const whole = layOut([top, drop], top, size)
    expect(whole.placed.map(({ turn, x, y }) => ({ turn, x, y }))).toEqual([
      { turn: 0, x: 0, y: 0 },
      { turn: 0, x: 6, y: 29 },
    ])
    expect([whole.width, whole.length]).toEqual([20, 24 + 5 + 18])
    expect(whole.ties).toEqual([{ kind: 'ring', from: { x: 10, y: 24 }, to: { x: 10, y: 29 } }])
  })
  it('hung at beads by name: its middle lies at their mean, a link at each', () => {
    const top = named('band', null, 10, 8)
    const drop = named('drop', joint({ holes: [1, 4], link: { kind: 'chain', mm: 8 } }), 4, 6)
    const { placed, ties } = layOut([top, drop], top, size)
    expect(placed[1]!.x + placed[1]!.width / 2).toBeCloseTo(4)
    expect(ties.map((t) => t.from.x)).toEqual([1, 7])
    expect(linksOf({ parts: [top, drop] })).toEqual([
      { kind: 'chain', mm: 8 },
      { kind: 'chain', mm: 8 },
    ])
  })
  it('along an edge: column to column, neither longer', () => {
    const band = named('band', null, 10, 8)
    const edging = named('edging', joint({ at: 'right', by: 'left' }), 2, 8)
    const whole = layOut([band, edging], band, size)
    expect(whole.placed[1]).toMatchObject({ turn: 0, x: 20, y: 0 })
    expect([whole.width, whole.length]).toEqual([24, 24])
  })
  it('by its first row on an edge: a quarter turn', () => {
    const band = named('band', null, 10, 8)
    const tab = named('tab', joint({ at: 'right' }), 4, 6)
    const whole = layOut([band, tab], band, size)
    expect(whole.placed[1]).toMatchObject({ turn: 3, x: 20, width: 18, length: 8 })
    expect([whole.width, whole.length]).toEqual([38, 24])
  })
  it('to the left of the first corner where it hangs there', () => {
    const band = named('band', null, 10, 8)
    const whole = layOut([band, named('tab', joint({ at: 'left', by: 'right' }), 4, 8)], band, size)
    expect([whole.x, whole.y, whole.width]).toEqual([-8, 0, 28])
  })
  it('by turning, never by mirroring, whichever sides meet: and they face each other', () => {
    const out = { start: [0, -1], end: [0, 1], left: [-1, 0], right: [1, 0] } as const
    // Turns clockwise on a screen whose y runs down: right becomes down.
    const turned = ([x, y]: readonly [number, number], turn: number): [number, number] =>
      turn === 0 ? [x, y] : turned([0 - y, x], turn - 1)
    for (const parent of [0, 1, 2, 3] as Turn[])
      for (const at of SIDES)
        for (const by of SIDES) {
          const turn = turnOfJoint({ at, by }, parent)
          const [a, b] = [turned(out[at], parent), turned(out[by], turn)]
          expect([at, by, a[0] + b[0], a[1] + b[1]]).toEqual([at, by, 0, 0])
        }
  })
  it('edge to edge: no two neighbours overlap, and a link keeps them apart by its length', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SIDES),
        fc.constantFrom(...SIDES),
        fc.constantFrom(...SIDES),
        fc.constantFrom(...SIDES),
        fc.nat({ max: 20 }),
        (at, by, at2, by2, mm) => {
          const link = mm === 0 ? null : ({ kind: 'ring', mm } as const)
          const parts = [
            named('band', null, 5, 7),
            named('b', joint({ at, by, link }), 3, 4),
            named('c', joint({ part: 'b', at: at2, by: by2, link }), 2, 9),
          ]
          const { placed } = layOut(parts, parts[0]!, size)
          for (const [p, q] of [
            [placed[0]!, placed[1]!],
            [placed[1]!, placed[2]!],
          ] as const) {
            const gapX = Math.max(p.x, q.x) - Math.min(p.x + p.width, q.x + q.width)
            const gapY = Math.max(p.y, q.y) - Math.min(p.y + p.length, q.y + q.length)
            expect(Math.max(gapX, gapY)).toBeCloseTo(mm)
          }
        },
      ),
    )
  })
  it('finds the root and the tree of a part', () => {
    const parts = [
      named('band', null),
      named('b', joint()),
      named('alone', null),
      named('c', joint({ part: 'b' })),
      named('d', joint()),
    ]
    const ids = (list: readonly Part[]) => list.map((p) => p.id)
    expect(rootOf(parts, parts[3]!).id).toBe('band')
    expect(ids(treeOf(parts, parts[0]!))).toEqual(['band', 'b', 'c', 'd'])
    expect(ids(treeOf(parts, parts[2]!))).toEqual(['alone'])
  })
})

describe('what cannot hang so', () => {
  const says = (parts: readonly Part[]) => checkJoints({ parts }).map((p) => [p.code, p.says])
  it('on a part that is not there, on itself, in a circle, at a bead that is not there, at one twice', () => {
    expect(says([named('band', joint({ part: 'gone' }))])).toEqual([
      ['joint-nowhere', 'band hangs on a part that is not there. Let it hang on one of the piece, or on nothing.'],
    ])
    expect(says([named('band', joint())])[0]![1]).toMatch(/^band cannot hang on itself/)
    const circle = [named('band', joint({ part: 'c' })), named('b', joint()), named('c', joint({ part: 'b' }))]
    expect(says([...circle, named('d', joint({ part: 'c' }))])).toEqual([
      ['joint-circle', 'band, c and b hang on each other in a circle. Let one of them hang on nothing.'],
    ])
    expect(says([named('band', null, 4), named('b', joint({ holes: [2, 5] }))])[0]![1]).toMatch(
      /^b hangs at bead 5 of the last row of band, which has 4\./,
    )
    expect(says([named('band', null), named('b', joint({ holes: [2, 2] }))])[0]![0]).toBe('joint-twice')
    expect(says([named('band', null), named('b', joint({ at: 'left', holes: [6] }))])).toEqual([])
  })
  it('is refused as an edit, also where the other part gives way, and nothing changes', () => {
    const p = piece({ parts: [named('band', null), named('b', joint({ holes: [4] }))] })
    const [band, b] = p.parts as [Part, Part]
    const refused = (steps: Parameters<typeof applySteps>[1]) => {
      const result = applySteps(p, steps)
      return result.ok ? null : result.problems[0]!.code
    }
    expect(refused([hangStep(p, band, joint({ part: 'b' }))])).toBe('joint-circle')
    expect(refused([hangStep(p, b, joint({ part: 'nobody' }))])).toBe('joint-nowhere')
    expect(refused([hangStep(p, b, joint({ holes: [9] }))])).toBe('joint-hole')
    expect(refused(removePartSteps(p, 'band').slice(1))).toBe('joint-nowhere')
    expect(refused([{ ...hangStep(p, b, null), after: { part: 'band' } }])).toMatch(/^shape/)
  })
})

describe('many parts', () => {
  it('hanging one on the other are looked through once: circles are found with all that hangs on them', () => {
    const chain = Array.from({ length: 200 }, (_, k) => named(`p${k}`, k === 0 ? null : joint({ part: `p${k - 1}` })))
    expect(checkJoints({ parts: chain })).toEqual([])
    const closed = chain.map((p, k) => (k === 0 ? { ...p, on: joint({ part: 'p2' }) } : p))
    const found = checkJoints({ parts: closed })
    expect(found.map((p) => [p.code, p.at])).toEqual([['joint-circle', 'p0']])
    expect(found[0]!.says).toMatch(/^p0, p2 and p1 hang on each other/)
    const two = closed.map((p) => (p.id === 'p9' ? { ...p, on: joint({ part: 'p11' }) } : p))
    expect(checkJoints({ parts: two }).map((p) => p.at)).toEqual(['p0', 'p9'])
  })
})

describe('steps and joints', () => {
  const p = piece({
    parts: [
      hungPart('band', 'brick', null, { columns: 5, rows: 8 }),
      named('b', joint({ holes: [2], link: { kind: 'ring', mm: 4 } })),
      named('c', joint({ part: 'b', at: 'left' })),
    ],
  })
  it('a part is hung on another, let go, and back', () => {
    const steps = [hangStep(p, p.parts[1]!, null)]
    const free = valueOf(applySteps(p, steps))
    expect(free.parts[1]!.on).toBeNull()
    expect(valueOf(applySteps(free, invertSteps(steps)))).toEqual(p)
  })
  it('what hung on a part that is taken off hangs on nothing, and comes back with it', () => {
    const steps = removePartSteps(p, 'b')
    const without = valueOf(applySteps(p, steps))
    expect(without.parts.map((q) => [q.id, q.on])).toEqual([
      ['band', null],
      ['c', null],
    ])
    expect(valueOf(applySteps(without, invertSteps(steps)))).toEqual(p)
  })
  it('what hangs on a part that is turned by a quarter stays where it was: its last row is its last column', () => {
    const turned = valueOf(applySteps(p, quarterTurnSteps(p, p.parts[0]!)!))
    const next = turned.parts[0]!
    expect(next.id).not.toBe('band')
    expect(turned.parts[1]!.on).toEqual({ ...p.parts[1]!.on!, part: next.id, at: 'right' })
    expect(turned.parts[2]!.on).toEqual(p.parts[2]!.on)
  })
})

describe('joints in words', () => {
  const mm = (value: number) => `${value} mm`
  const says = (on: Joint | null) => jointWords([named('Band', null)], { id: 'b', name: 'B', on }, mm)
  const to = (over: Partial<Joint>) => joint({ part: 'Band', ...over })
  it('says which sides meet, where, and what joins them', () => {
    expect(says(null)).toBe('')
    expect(says(to({}))).toBe('Its first row on the last row of Band, sewn on')
    expect(says(to({ at: 'left', by: 'right' }))).toBe('Its last column on the first column of Band, sewn on')
    expect(says(to({ holes: [3] }))).toBe('Its first row on the last row of Band, bead 3, sewn on')
    expect(says(to({ link: { kind: 'ring', mm: 5 } }))).toBe('Its first row on the last row of Band by a ring, 5 mm')
    expect(says(to({ holes: [3, 10], link: { kind: 'ring', mm: 5 } }))).toBe(
      'Its first row on the last row of Band, beads 3 and 10, by rings, 5 mm',
    )
    expect(says(to({ holes: [1, 2], link: { kind: 'chain', mm: 20 } }))).toMatch(/by pieces of chain, 20 mm$/)
    expect(says(to({ link: { kind: 'chain', mm: 20 } }))).toMatch(/by a piece of chain, 20 mm$/)
    expect(says(joint({ part: 'gone' }))).toContain('of a part that is not there')
  })
  it('of what hangs below, or is sewn to a finding, no sides are said', () => {
    const below = (technique: string, holder: string, over: Partial<Joint> = {}) =>
      jointWords([{ ...named('Band', null), technique: holder }], { id: 'b', name: 'B', technique, on: to(over) }, mm)
    expect(below('fringe', 'brick')).toBe('Hangs below Band')
    expect(below('brick', 'finding')).toBe('Sewn on below Band')
    expect(below('brick', 'finding', { holes: [1, 2], link: { kind: 'ring', mm: 4 } })).toBe(
      'Hangs below Band, at places 1 and 2, by rings, 4 mm',
    )
    expect(below('finding', 'loom', { link: { kind: 'chain', mm: 20 } })).toBe(
      'Hangs below Band by a piece of chain, 20 mm',
    )
    expect(below('brick', 'loom')).toBe('Its first row on the last row of Band, sewn on')
  })
  it('reads beads as people write them', () => {
    const read = (text: string, beads = 12) => {
      const found = parseHoles(text, beads)
      return found.ok ? found.value : found.problems[0]!.says
    }
    expect(read('')).toEqual([])
    expect(read('  ')).toEqual([])
    expect(read('3')).toEqual([3])
    expect(read('3, 8')).toEqual([3, 8])
    expect(read('3 and 8; 12')).toEqual([3, 8, 12])
    expect(read('1+12')).toEqual([1, 12])
    expect(read('0')).toBe('That side has beads 1 to 12.')
    expect(read('13')).toBe('That side has beads 1 to 12.')
    expect(read('3, 3')).toBe('Name each bead once.')
    expect(read('left')).toBe('Write the numbers of the beads, like “3, 8”.')
    expect(read('-3')).toBe('Write the numbers of the beads, like “3, 8”.')
    const many = (n: number) => Array.from({ length: n }, (_, k) => k + 1).join(' ')
    expect(read(many(40), 99)).toHaveLength(40)
    expect(read(many(41), 99)).toBe('At most 40 beads.')
  })
  it('a part may hang on any but itself and what hangs on it', () => {
    const parts = [named('band', null), named('b', joint()), named('c', joint({ part: 'b' })), named('d', null)]
    const ids = (part: Part) => hangableOn(parts, part).map((p) => p.id)
    expect(parts.map(ids)).toEqual([['d'], ['band', 'd'], ['band', 'b', 'd'], ['band', 'b', 'c']])
  })
})

describe('parts that do not hang together', () => {
  it('lie side by side, trees from their uppermost edge, apart by a gap', () => {
    const parts = [
      named('band', null, 4, 6),
      named('up', joint({ at: 'start', by: 'end', link: { kind: 'ring', mm: 2 } }), 6, 2),
      named('alone', null, 3, 3),
    ]
    const whole = layOutAll(parts, size, 5)
    const at = whole.placed.map(({ part: p, x, y }) => [p.id, x, y])
    // The upper part is wider by 2 mm on each side, and 8 mm of it and its ring lie above the band.
    expect(at).toEqual([
      ['band', 2, 8],
      ['up', 0, 0],
      ['alone', 17, 0],
    ])
    expect([whole.x, whole.y, whole.width, whole.length]).toEqual([0, 0, 23, 26])
    expect(whole.ties).toEqual([{ kind: 'ring', from: { x: 6, y: 8 }, to: { x: 6, y: 6 } }])
    expect(partsWith(parts, parts[1]!).map((p) => p.id)).toEqual(['band', 'up'])
    expect(partsWith(parts, parts[2]!).map((p) => p.id)).toEqual(['alone'])
    expect(partsWith(parts, parts[0]!).map((p) => p.id)).toEqual(['band', 'up'])
  })
  it('a part whose parent is not among them begins a tree of its own; nothing is no size', () => {
    const lost = named('lost', joint({ part: 'elsewhere' }))
    expect(layOutAll([lost], size, 5).placed.map((p) => p.part.id)).toEqual(['lost'])
    expect(layOutAll([], size, 5)).toMatchObject({ placed: [], width: 0, length: 0 })
  })
})
