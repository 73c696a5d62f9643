import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { beginPiece } from '../begin/begin'
import { linesOf, raggedFrom } from '../grid/lines'
import { pairWords } from '../piece/pair'
import type { Part, Piece } from '../piece/piece'
import { costSchema, fitSchema, supplySchema } from '../piece/schema'
import { requireTechnique } from '../technique/registry'
import { usualClosure, type ClosureKind } from '../wear/closure'
import { agendaOf, COPY_ORDERS, taskAt, type Agenda, type Chore } from './agenda'
import { choresOf, courseOf, GLUE_MINUTES, timersOf, type Happened } from './chore'

const ONE = { copies: 1, copyOrder: 'in turn' as const }
const NONE: Happened = { joined: new Map(), measured: [] }
const tasksOf = (agenda: Agenda) => Array.from({ length: agenda.count }, (_, k) => taskAt(agenda, k)!)
const kindsOf = (agenda: Agenda) => tasksOf(agenda).map((t) => t.chore?.kind ?? 'row')
const choreOf = (agenda: Agenda, kind: Chore['kind']): Chore | undefined =>
  tasksOf(agenda).find((t) => t.chore?.kind === kind)?.chore
const closed = (kind: ClosureKind) =>
  fitSchema.parse({ kind: 'bracelet', bodyMm: 170, easeMm: 13, closure: usualClosure(kind), widthMm: 10 })
const made = (technique: string, over: Parameters<typeof piece>[0] = {}) => {
  const t = requireTechnique(technique)
  const columns = t.growth.nearestColumns(4, t.settings.parse({}))
  const line = rows('A'.repeat(columns))
  return piece({
    tray: [bead(1, { spec: t.material.usualSpec })],
    parts: [
      part({
        technique,
        spec: t.material.usualSpec,
        settings: t.settings.parse({}),
        start: line,
        repeat: line,
        end: line,
      }),
    ],
    ...over,
  })
}

describe('what is done besides beads', () => {
  it('stands among the rows without changing them, each with a name of its own, in any technique', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.record({ copies: fc.integer({ min: 1, max: 3 }), copyOrder: fc.constantFrom(...COPY_ORDERS) }),
        (p, order) => {
          const course = courseOf(p, order, NONE)
          const tasks = tasksOf(course)
          expect(new Set(tasks.map((t) => t.key)).size).toBe(tasks.length)
          expect(tasks.filter((t) => t.words).map((t) => t.key)).toEqual(tasksOf(agendaOf(p, order)).map((t) => t.key))
          expect(course.beads).toBe(agendaOf(p, order).beads)
          // Told once, however many are made.
          const told = tasks.flatMap((t) => t.chore?.cautions ?? [])
          expect(new Set(told).size).toBe(told.length)
          expect(tasks.filter((t) => t.chore?.kind === 'prepare').length).toBeLessThanOrEqual(1)
          for (const t of tasks)
            if (t.chore) {
              const { kind, items, minutes } = t.chore
              expect(new Set(items.map((i) => i.id)).size).toBe(items.length)
              // What is ticked off one by one says minutes that come to those of the step.
              if (kind === 'prepare') expect(items.reduce((sum, i) => sum + (i.minutes ?? 0), 0)).toBe(minutes)
            }
        },
      ),
    )
  })
  it('of a loomed band: lay out, wind, thread, weave; take it off, sew the clasp on, knot, trim', () => {
    const course = courseOf(made('loom'), ONE, NONE)
    expect(kindsOf(course).filter((k) => k !== 'row')).toEqual(['prepare', 'fasten', 'clasp', 'knot', 'trim'])
    const { items } = choreOf(course, 'prepare')!
    expect(items.map((i) => i.id)).toEqual([
      ...['beads', 'cull', 'cut-band-weft', 'cut-band-warp', 'care-weft', 'warp', 'needle'],
    ])
    expect(items.find((i) => i.id === 'beads')!.text).toBe('Lay out the beads: A 20')
    // By hand: 2 + 4 + 2 + 2 + 2 + 7 + 2 is more than the 20 minutes of the plan.
    expect(items.map((i) => i.minutes)).toEqual([2, 4, 2, 2, 2, 7, 2])
    expect(items.find((i) => i.id === 'warp')).toMatchObject({ text: 'Wind 7 warps, all equally tight', minutes: 7 })
    expect(choreOf(courseOf(made('loom'), { ...ONE, copies: 3 }, NONE), 'prepare')!.items[0]!.text).toBe(
      'Lay out the beads, for all 3: A 60',
    )
  })
  it('cuts wire before it is straightened and bent, and straightens it in one way', () => {
    const ids = (technique: string) => choreOf(courseOf(made(technique), ONE, NONE), 'prepare')!.items.map((i) => i.id)
    const of = (list: string[], wanted: RegExp) => list.findIndex((id) => wanted.test(id))
    const frame = ids('wire-frame')
    expect(frame).not.toContain('care-wire')
    expect(of(frame, /^cut-/)).toBeLessThan(of(frame, /-straighten$/))
    const kinds = kindsOf(courseOf(made('wire-frame'), ONE, NONE)).filter((k) => k !== 'row')
    expect(kinds.slice(0, 2)).toEqual(['prepare', 'bend'])
    // A ladder brings no way of its own: the usual one comes before its middle is marked.
    const ladder = ids('wire-ladder')
    expect(of(ladder, /^cut-/)).toBeLessThan(ladder.indexOf('care-wire'))
    expect(of(ladder, /^care-wire$/)).toBeLessThan(of(ladder, /-middle$/))
  })
  it('of a pair on wire: bent by its guide, mirrored where it differs, put on, laid upon the other', () => {
    const begun = beginPiece({
      ...{ name: '', wearer: '', kind: 'earrings', bodyMm: 50, easeMm: 0, widthMm: 20, technique: 'wire-frame' },
      ...{ closure: usualClosure('ear-wire'), motif: 'plain', start: 'left', spec: 'round-8' },
    })
    const two = { copies: 2, copyOrder: 'in turn' as const }
    const choresOfCopy = (one: Piece, copy: number) =>
      tasksOf(courseOf(one, two, NONE)).flatMap((t) => (t.chore && t.copy === copy ? [t.chore] : []))
    const kinds = (one: Piece, copy: number) => choresOfCopy(one, copy).map(({ kind }) => kind)
    expect(kinds(begun, 1)).toEqual(['prepare', 'bend', 'fasten', 'clasp', 'trim'])
    expect(kinds(begun, 2)).toEqual(['bend', 'fasten', 'clasp', 'trim', 'pair'])
    const [prepare, bend, fasten, clasp] = choresOfCopy(begun, 1)
    expect([bend!.title, fasten!.title, clasp!.title]).toEqual(['Bend the frame', 'Tuck in', 'Put on: Ear wire'])
    // Each caution where it matters: of cutting before, of springing at the bend, of ends where they are pressed in.
    expect(prepare!.cautions.join()).toMatch(/eye protection/)
    expect(prepare!.cautions.join()).not.toMatch(/Tuck every end/)
    expect(bend!.cautions.join()).toMatch(/springs/)
    expect(fasten!.cautions.join()).toMatch(/Tuck every end/)
    expect(clasp!.cautions.join()).toMatch(/nickel/)
    expect(choresOfCopy(begun, 2).flatMap(({ cautions }) => cautions)).toEqual([])
    expect(pairWords(begun)).toBe('Make two: both are alike.')
    // One bead of another colour on the right: the second is a mirror, and is told so before it is strung.
    const [frame] = begun.parts as [Part]
    const lines = linesOf(frame.repeat).map((line) => [...line])
    lines[0]![2] = begun.tray.length + 1
    const marked: Piece = {
      ...begun,
      tray: [...begun.tray, bead(begun.tray.length + 1, { spec: 'round-8' })],
      parts: [{ ...frame, repeat: raggedFrom(lines) }],
    }
    expect(kinds(marked, 1)).toEqual(['prepare', 'bend', 'fasten', 'clasp', 'trim'])
    expect(kinds(marked, 2)).toEqual(['mirror', 'bend', 'fasten', 'clasp', 'trim', 'pair'])
    expect(choresOfCopy(marked, 2)[0]!.says[0]).toContain('round the left side')
    expect(pairWords(marked)).toContain('mirror of the first')
    expect(kinds({ ...marked, fit: { ...marked.fit, pair: 'copy' } }, 2)).not.toContain('mirror')
    // A pendant is no pair.
    expect(kinds({ ...marked, fit: { ...marked.fit, kind: 'pendant' } }, 2)).toEqual([
      ...['bend', 'fasten', 'clasp', 'trim'],
    ])
  })
  it('of a flower winds its stem round what carries it; what its wearer must mind stays said', () => {
    const begun = (kind: 'pendant' | 'earrings', closure: ClosureKind) =>
      beginPiece({
        ...{ name: '', wearer: '', kind, bodyMm: 60, easeMm: 0, widthMm: 20, technique: 'wire-flower' },
        ...{ closure: { ...usualClosure(closure), name: closure === 'own' ? 'Comb' : '' } },
        ...{ motif: 'plain', start: 'left', spec: 'round-11' },
      })
    const comb = choreOf(courseOf(begun('pendant', 'own'), ONE, NONE), 'clasp')!
    expect([comb.title, comb.cautions.length]).toEqual(['Fix it to: Comb', 1])
    expect(comb.says[0]).toContain('Wind the stem round it')
    const ear = choreOf(courseOf(begun('earrings', 'ear-wire'), ONE, NONE), 'clasp')!
    expect(ear.cautions.join()).toMatch(/Tuck every end.*nickel/)
  })
  it('of a stud sets its butterfly, of a hoop tries its catch: they are their own closures', () => {
    const titles = (shape: string) => {
      const begun = beginPiece({
        ...{ name: '', wearer: '', kind: 'earrings', bodyMm: 20, easeMm: 0, widthMm: 20, technique: 'wire-shape' },
        ...{ closure: usualClosure('post'), motif: 'plain', start: 'left', spec: 'round-11', settings: { shape } },
      })
      return tasksOf(courseOf(begun, ONE, NONE)).flatMap((t) => (t.chore ? [t.chore.title] : []))
    }
    expect(titles('bar')).toEqual(['Before you begin', 'File the post', 'Set the butterfly', 'Trim'])
    expect(titles('hoop')).toEqual(['Before you begin', 'File the end', 'Try the catch', 'Trim'])
  })
  it('spreads the minutes that the plan gives over what is prepared, in whole minutes', () => {
    const cost = costSchema.parse({ prepareMinutes: 31 })
    // By hand: 2, 4, 2, 2, 2 of 12, times 31/12 = 5.17, 10.33, 5.17, 5.17, 5.17: the odd minute to the largest rest.
    expect(choreOf(courseOf(made('peyote', { cost }), ONE, NONE), 'prepare')!.items.map((i) => i.minutes)).toEqual([
      ...[5, 11, 5, 5, 5],
    ])
  })
  it('of a braid begins with bobbins that are checked off, with tape where a section ends, and ends in glue', () => {
    const course = courseOf(made('braid-8'), ONE, NONE)
    expect(kindsOf(course).filter((k) => k !== 'row')).toEqual([
      ...['prepare', 'load', 'pause', 'pause', 'fasten', 'clasp', 'glue', 'trim', 'rest'],
    ])
    const load = choreOf(course, 'load')!
    expect(load.items).toHaveLength(8)
    expect(load.items[0]!.text).toMatch(/^Bobbin 1, slot \d+, .+: beginning 1A; repeat × 3 1A; ending 1A\. 5 in all$/)
    expect(load.says.join(' ')).toContain('tape')
    // A repeat of one round is not paused at each time; one of eight is.
    const rests = (p: Piece) =>
      tasksOf(courseOf(p, ONE, NONE))
        .filter((t) => t.chore?.kind === 'pause')
        .map((t) => [t.row, t.chore!.says[0]!.split(' ends')[0]])
    const braid = made('braid-8')
    expect(rests(braid)).toEqual([
      [1, 'The beginning'],
      [4, 'The repeat 3 of 3'],
    ])
    const eight = rows(...Array.from({ length: 8 }, () => 'AAAAAAAA'))
    const long = (times: number) => ({ ...braid, parts: [{ ...braid.parts[0]!, repeat: eight, times }] })
    expect(rests(long(3))).toEqual([
      [1, 'The beginning'],
      [9, 'The repeat 1 of 3'],
      [17, 'The repeat 2 of 3'],
      [25, 'The repeat 3 of 3'],
    ])
    expect(rests(long(61))).toHaveLength(2)
    const cords = courseOf(made('braid-cord'), ONE, NONE)
    expect(choreOf(cords, 'load')!.title).toBe('Lay the cords in')
  })
  it('closes as the piece is closed', () => {
    const kinds = (kind: ClosureKind) =>
      kindsOf(courseOf(made('peyote', { fit: closed(kind) }), ONE, NONE)).filter((k) => k !== 'row')
    expect(kinds('toggle')).toEqual(['prepare', 'clasp', 'knot', 'trim'])
    expect(kinds('elastic')).toEqual(['prepare', 'knot', 'glue', 'trim', 'rest'])
    expect(kinds('none')).toEqual(['prepare', 'close', 'knot', 'trim'])
    const magnet = courseOf(made('peyote', { fit: closed('magnet') }), { ...ONE, copies: 2 }, NONE)
    const clasps = tasksOf(magnet).filter((t) => t.chore?.kind === 'clasp')
    expect(clasps.map((t) => t.chore!.cautions.length)).toEqual([1, 0])
  })
  it('joins thread where it ends, and a part where it hangs', () => {
    const supply = supplySchema.parse({ workingLengthMm: 500, tailMm: 50, claspTailMm: 50 })
    const long = made('peyote', { supply })
    const grown = { ...long, parts: [{ ...long.parts[0]!, times: 120 }] }
    const joins = tasksOf(courseOf(grown, ONE, NONE)).filter((t) => t.chore?.kind === 'join')
    expect(joins.length).toBeGreaterThan(1)
    const [first] = joins
    const row = first!.key.replace('/join', '')
    // Joined before row 10 of the list: the next is as far on as the second was from the first.
    const early = tasksOf(courseOf(grown, ONE, { ...NONE, joined: new Map([['band/1/10', true]]) })).filter(
      (t) => t.chore?.kind === 'join',
    )
    expect(early[0]!.key).toBe('band/1/10/join')
    const later = courseOf(grown, ONE, { ...NONE, joined: new Map([[row, false]]) })
    expect(tasksOf(later).find((t) => t.chore?.kind === 'join')!.row).toBe(first!.row + 1)
    // In another copy nothing moves.
    expect(choresOf(grown, ONE, { ...NONE, joined: new Map([['band/2/10', true]]) })).toEqual(
      choresOf(grown, ONE, NONE),
    )

    const hung = piece({
      parts: [
        part({ id: 'top', name: 'Top' }),
        part({
          id: 'drop',
          name: 'Drop',
          on: { part: 'top', at: 'end', by: 'start', holes: [], link: { kind: 'ring', mm: 3 } },
        }),
      ],
    })
    const attach = tasksOf(courseOf(hung, ONE, NONE)).find((t) => t.chore?.kind === 'attach')!
    expect([attach.part.id, attach.chore!.title]).toEqual(['drop', 'Join Drop on'])
    expect(attach.chore!.says).toEqual(['Its first row on the last row of Top by a ring, 3 mm.'])
  })
})

describe('what is waited for', () => {
  const course = courseOf(made('braid-8'), ONE, NONE)
  const ticks = (key: string, at: number) => new Map([[key, new Map([['done', at]])]])
  it('is reckoned from when the glue was on: twenty minutes to move it, a day to wear it (common practice)', () => {
    expect([GLUE_MINUTES.move, GLUE_MINUTES.wear]).toEqual([20, 24 * 60])
    expect(timersOf(course, ticks('band/1/end/glue', 1000)).map((t) => [t.until - 1000, t.says])).toEqual([
      [20 * 60_000, 'before it is moved'],
      [24 * 3_600_000, 'before it is worn'],
    ])
  })
  it('is nothing where nothing was ticked, or where the step is not there any more', () => {
    expect(timersOf(course, new Map())).toEqual([])
    expect(timersOf(course, ticks('band/1/end/clasp', 1000))).toEqual([])
    expect(timersOf(courseOf(made('loom'), ONE, NONE), ticks('band/1/end/glue', 1000))).toEqual([])
  })
})
