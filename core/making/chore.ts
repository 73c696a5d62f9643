import { requireSpec } from '../bead/spec'
import { plainEndsMm } from '../fit/extent'
import { isRing, joinOf } from '../piece/join'
import { jointWords } from '../piece/joint'
import { discOf, isCounted } from '../piece/nature'
import { isMirrorCopy, isSecond } from '../piece/pair'
import { fittedPart, SECTIONS, techniqueOf, trayByNumber, type Part, type Piece } from '../piece/piece'
import { carriersOf, workCautions } from '../supply/cautions'
import { pathOf, threadCuts } from '../supply/thread'
import { workplaceOf } from '../supply/tools'
import { strandLists, strandWords } from '../tally/strand'
import { tallyPart } from '../tally/tally'
import { requireNeedle, requireThread } from '../thread/catalogue'
import type { CarrierId } from '../technique/act'
import type { Handling } from '../technique/workplace'
import { showLength, showLongLength, showNumber, type LengthUnit } from '../units/length'
import { closureName, closureOf } from '../wear/closure'
import {
  agendaOf,
  placeOf,
  rowListOf,
  taskAt,
  type Agenda,
  type Filled,
  type Chore,
  type ChoreItem,
  type Order,
  type PlacedChore,
  type RowList,
} from './agenda'
import { joinRows, type Joins } from './join'
import { measureRows } from './measure'

/** How a chore is worded. */
export interface ChoreStyle {
  readonly unit: LengthUnit
}

const PLAIN: ChoreStyle = { unit: 'mm' }

/** Glue on thread and cord: before the work is moved, and before it is worn, minutes (common practice). */
export const GLUE_MINUTES = { move: 20, wear: 24 * 60 } as const

/** Minutes of work that things usually take (common practice; rough). */
const MINUTES = {
  join: 5,
  measure: 3,
  sew: 8,
  knot: 3,
  glue: 2,
  trim: 3,
  hang: 8,
  strand: 4,
  thing: 2,
  cull: 4,
  warp: 1,
}

const CARE: Partial<Record<CarrierId, string>> = {
  thread: 'Run the thread through the fingers; stretch nylon, wax what frays or splits.',
  weft: 'Run the thread through the fingers; stretch nylon, wax what frays or splits.',
  wire: 'Straighten the wire between the fingers in a cloth; do not pull it over an edge.',
}

/** How rings and loops of wire are opened (common practice). */
const OPENED_ASIDE =
  'A ring or loop is opened aside, with two pliers, never apart: put the work on, and close it until it clicks.'

const GLUE_CAUTION =
  'Glue: read its label, work where air moves, keep it off the skin; instant glue bonds skin at once.'
const chore = (kind: Chore['kind'], title: string, more: Partial<Omit<Chore, 'kind' | 'title'>> = {}): Chore => ({
  kind,
  title,
  says: [],
  items: [],
  minutes: 0,
  cautions: [],
  waits: [],
  ...more,
})

const handled = (kind: Chore['kind'], { title, ...more }: Handling): Chore => chore(kind, title, more)

/** Whole minutes in the proportion of the weights that come to the whole: largest remainders first. */
function sharesOf(whole: number, weights: readonly number[]): number[] {
  const sum = weights.reduce((a, b) => a + b, 0)
  const exact = weights.map((weight) => (weight / sum) * whole)
  const shares = exact.map(Math.floor)
  let left = Math.round(whole - shares.reduce((a, b) => a + b, 0))
  const byRest = exact.map((x, k) => ({ k, rest: x - Math.floor(x) })).sort((a, b) => b.rest - a.rest || a.k - b.k)
  for (const { k } of byRest) if (left-- > 0) shares[k]!++
  return shares
}

const times = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`

/** What is laid out, cut and looked over before the first bead, once for all copies. */
function prepare(piece: Piece, { copies }: Order, { unit }: ChoreStyle): Chore {
  const items: Required<ChoreItem>[] = []
  const add = (id: string, text: string, minutes: number = MINUTES.thing) => items.push({ id, text, minutes })
  const forAll = copies > 1 ? `, for all ${copies}` : ''
  const counts = piece.parts.map(tallyPart)
  const used = piece.tray.flatMap((bead) => {
    const count = counts.reduce((sum, c) => sum + (c.get(bead.number) ?? 0), 0)
    return count > 0 ? [{ bead, spec: requireSpec(bead.spec), count }] : []
  })
  const beads = used.filter(({ spec }) => spec.shape !== 'cord')
  if (beads.length > 0)
    add(
      'beads',
      `Lay out the beads${forAll}: ${beads.map((u) => `${u.bead.letter} ${showNumber(u.count * copies)}`).join(', ')}`,
    )
  if (beads.length > 0) add('cull', 'Cull: put broken, thin and crooked beads aside as you lay them out', MINUTES.cull)
  const two = beads.filter(({ spec }) => spec.spacing !== undefined)
  if (two.length > 0) add('holes', `Check that both holes are open: ${two.map((u) => u.bead.letter).join(', ')}`)
  for (const part of piece.parts)
    for (const cut of threadCuts(piece, part)) {
      if (cut.pieces === 0) continue
      const whose = piece.parts.length > 1 ? ` (${part.name})` : ''
      const many = cut.pieces * copies
      const length = showLongLength(cut.cutMm, unit)
      if (cut.joins > 0)
        add(`cut-${part.id}-${cut.id}`, `Cut: ${cut.name}${whose}, ${many} lengths of up to ${length}, one at a time`)
      else add(`cut-${part.id}-${cut.id}`, `Cut: ${cut.name}${whose}, ${many} × ${length}`)
    }
  const carriers = carriersOf(piece)
  const ready = piece.parts.flatMap((part) =>
    (workplaceOf(piece, part)?.ready ?? []).map((one) => ({ ...one, key: `${part.id}-${one.id}` })),
  )
  for (const carrier of ['thread', 'weft', 'wire'] as const) {
    // Where the work straightens its wire in a way of its own, that is enough.
    if (carrier === 'wire' && ready.some(({ id }) => id === 'straighten')) continue
    if (carriers.has(carrier) && !items.some((i) => i.text === CARE[carrier])) add(`care-${carrier}`, CARE[carrier]!)
  }
  // What is folded or bent was cut and straightened before.
  for (const { key, text, minutes } of ready) if (!items.some((i) => i.text === text)) add(key, text, minutes)
  if (carriers.has('warp')) {
    const warps = Math.max(
      ...piece.parts.flatMap((p) => pathOf(p, piece).runs.map((r) => (r.id === 'warp' ? r.count : 0))),
    )
    add('warp', `Wind ${warps} warps, all equally tight`, warps * MINUTES.warp)
  }
  if (carriers.has('thread') || carriers.has('weft'))
    add(
      'needle',
      `Thread the needle, ${requireNeedle(piece.supply.needle).name}, with ` +
        requireThread(piece.supply.thread).name +
        (piece.supply.doubled ? ', doubled' : ''),
    )
  const minutes = Math.max(
    piece.cost.prepareMinutes,
    items.reduce((sum, i) => sum + i.minutes, 0),
  )
  const shares = sharesOf(
    minutes,
    items.map((i) => i.minutes),
  )
  return chore('prepare', 'Before you begin', {
    items: items.map((item, k) => ({ ...item, minutes: shares[k]! })),
    minutes,
    cautions: workCautions(piece),
  })
}

/** Strands loaded before a braid, checked off one by one; null for other work. */
function load(piece: Piece, part: Part): Chore | null {
  if (!discOf(part)) return null
  const letters = trayByNumber(piece.tray)
  if (!isCounted(part)) {
    const items = strandLists(
      part,
      SECTIONS.find((s) => part[s].rows > 0),
    ).map((list) => ({
      id: `strand-${list.bobbin}`,
      text: `Slot ${list.slot}, ${list.place}: cord ${letters.get(list.runs[0]?.number ?? 0)?.letter ?? '–'}`,
    }))
    return chore('load', 'Lay the cords in', { items, minutes: items.length * MINUTES.strand })
  }
  const names = { start: 'beginning', repeat: part.times > 1 ? `repeat × ${part.times}` : 'pattern', end: 'ending' }
  const sections = SECTIONS.filter((s) => part[s].rows > 0 && (s !== 'repeat' || part.times > 0))
  const lists = sections.map((section) => ({ section, strands: strandLists(part, section) }))
  const whole = strandLists(part)
  const items = whole.map((list, s) => ({
    id: `strand-${list.bobbin}`,
    text:
      `Bobbin ${list.bobbin}, slot ${list.slot}, ${list.place}: ` +
      lists
        .map(({ section, strands }) => {
          const told = strandWords(strands[s]!, piece.tray)
          return sections.length > 1 || (section === 'repeat' && part.times > 1) ? `${names[section]} ${told}` : told
        })
        .join('; ') +
      `. ${showNumber(list.beads)} in all`,
  }))
  return chore('load', 'Load the bobbins', {
    says: [
      'String in the order named, on the free end of the cord: the bead named first lies nearest the middle.',
      ...(sections.length > 1 || part.times > 1
        ? [
            'Fold a bit of tape over the cord where a section or a repeat ends: the braid pauses there, and a wrong ' +
              'count shows at once.',
          ]
        : []),
    ],
    items,
    minutes: items.length * MINUTES.strand,
  })
}

/** A repeat shorter than this, rounds, is not paused at copy by copy; nor are more copies than so many. */
const PAUSES = { rounds: 8, copies: 60 } as const

/** Places among the rows where a section of a braid, or a copy of its repeat, ends; the last is the end of all. */
function pauses(part: Part, rows: RowList): { readonly k: number; readonly says: string }[] {
  if (!discOf(part) || !isCounted(part)) return []
  const { start, repeat, end, times: copies } = part
  const ends = [
    { row: start.rows, what: 'beginning' },
    ...Array.from({ length: repeat.rows > 0 ? copies : 0 }, (_, n) => n + 1)
      .filter((n) => n === copies || (repeat.rows >= PAUSES.rounds && copies <= PAUSES.copies))
      .map((n) => ({
        row: start.rows + n * repeat.rows,
        what: copies > 1 ? `repeat ${n} of ${copies}` : 'pattern',
      })),
  ].filter(({ row }) => row > 0 && row < start.rows + repeat.rows * copies + end.rows)
  return ends
    .map(({ row, what }) => ({
      k: rows.placeOf(row),
      says:
        `The ${what} ends here: the tape of every bobbin should be at the disc. Where one is not, its count is ` +
        'wrong: look before you go on.',
    }))
    .filter(({ k }, i, all) => k > 0 && k < rows.count && all.findIndex((o) => o.k === k) === i)
}

const reinforceWords = (passes: number): string =>
  `Reinforce: ${times(passes, 'more pass', 'more passes')} through the beads that take the strain.`

/** What closes, fastens and finishes a copy, in order. */
function finish(piece: Piece): Chore[] {
  const { closure } = piece.fit
  const part = fittedPart(piece)
  const carriers = carriersOf(piece)
  const out: Chore[] = []
  const entry = closureOf(closure.kind)
  const braided = discOf(part) !== null
  const sews = carriers.has('thread') || carriers.has('weft')
  const join = joinOf(piece, part)
  if (isRing(piece.fit) && join) out.push(chore('close', 'Join the ends', { says: [join.says], minutes: MINUTES.sew }))
  if (carriers.has('warp'))
    out.push(
      chore('fasten', 'Take it off the loom', {
        says: [
          plainEndsMm(part) > 0
            ? 'Work the plain ends, then cut the warps and fold or weave them in.'
            : 'Cut the warps one or two at a time and weave each back through the rows.',
        ],
        minutes: MINUTES.sew,
      }),
    )
  if (braided)
    out.push(
      chore('fasten', 'Bind the ends', {
        says: ['Whip thread round the rope behind the last beads, at both ends, and only then cut it from the disc.'],
        minutes: MINUTES.sew,
      }),
    )
  const own = workplaceOf(piece, part)
  if (own?.fasten) out.push(handled('fasten', own.fasten))
  const named = closureName(closure)
  const closes = !isRing(piece.fit) && closure.kind !== 'elastic' && closure.kind !== 'none'
  const clasp = closes ? own?.clasp?.(named) : undefined
  const worn = entry.caution ? [entry.caution] : []
  if (clasp) out.push(handled('clasp', { ...clasp, cautions: [...(clasp.cautions ?? []), ...worn] }))
  else if (closes)
    out.push(
      chore('clasp', braided ? `Set the ends into: ${named}` : sews ? `Sew on: ${named}` : `Put on: ${named}`, {
        says: [
          ...(sews || braided ? [] : [OPENED_ASIDE]),
          entry.note,
          ...(sews && piece.supply.sewPasses > 0
            ? [`Go through the beads that hold it ${piece.supply.sewPasses + 1} times in all.`]
            : []),
        ],
        minutes: MINUTES.sew,
        cautions: worn,
      }),
    )
  const glued = braided || closure.kind === 'elastic' || own?.glued === true
  if (sews || closure.kind === 'elastic')
    out.push(
      chore('knot', closure.kind === 'elastic' ? 'Knot the elastic' : 'Knot and weave in the tails', {
        says:
          closure.kind === 'elastic'
            ? ['Stretch it once, tie a surgeon’s knot, and draw it into a bead.']
            : [
                'A half hitch between two beads, three beads on, another; then through a few beads more.',
                ...(piece.supply.reinforce > 0 ? [reinforceWords(piece.supply.reinforce)] : []),
              ],
        minutes: MINUTES.knot,
      }),
    )
  if (glued)
    out.push(
      chore('glue', braided ? 'Glue the ends in' : `A drop of glue on ${own?.glued ? 'every' : 'the'} knot`, {
        says: [`Then leave it: ${GLUE_MINUTES.move} minutes before it is moved, 24 hours before it is worn.`],
        minutes: MINUTES.glue,
        cautions: [GLUE_CAUTION],
        items: [{ id: GLUED, text: 'The glue is on' }],
        waits: [
          { minutes: GLUE_MINUTES.move, says: 'before it is moved' },
          { minutes: GLUE_MINUTES.wear, says: 'before it is worn' },
        ],
      }),
    )
  if (sews || carriers.has('cord') || carriers.has('wire'))
    out.push(
      chore('trim', 'Trim', {
        says: [
          carriers.has('wire')
            ? 'Cut close, and press every end in.'
            : 'Cut the tails close to the beads; never the knot.',
        ],
        minutes: MINUTES.trim,
      }),
    )
  if (glued)
    out.push(
      chore('rest', 'Let the glue set', {
        says: ['It may be worn 24 hours after it was glued.'],
      }),
    )
  return out
}

/** Thing of a chore that starts what it waits for. */
const GLUED = 'done'

/** What is waited for: until when, ms since 1970. */
export interface Timer {
  readonly task: string
  readonly title: string
  readonly says: string
  readonly until: number
}

/** Everything that is waited for since something of an agenda was ticked off, the next first. */
export function timersOf(agenda: Agenda, ticks: ReadonlyMap<string, ReadonlyMap<string, number>>): Timer[] {
  const out: Timer[] = []
  for (const [task, ticked] of ticks) {
    const since = ticked.get(GLUED)
    if (since === undefined) continue
    const found = taskAt(agenda, placeOf(agenda, { task, bite: 0 }).index)
    if (found?.key !== task || !found.chore) continue
    const whose = agenda.order.copies > 1 ? `, ${found.copy} of ${agenda.order.copies}` : ''
    for (const { minutes, says } of found.chore.waits)
      out.push({ task, title: `${found.chore.title}${whose}`, says, until: since + minutes * 60_000 })
  }
  return out.sort((a, b) => a.until - b.until)
}

/** Each caution once, where it matters: at the first step that it concerns, and before the work where none does. */
function toldOnce(chores: readonly PlacedChore[]): PlacedChore[] {
  const told = new Set<string>()
  const once = (own: readonly string[]) => own.filter((text) => !told.has(text) && told.add(text))
  const isBefore = ({ chore: { kind } }: PlacedChore) => kind === 'prepare'
  const inOrder = [...chores.filter((one) => !isBefore(one)), ...chores.filter(isBefore)]
  const kept = new Map(inOrder.map((one) => [one, once(one.chore.cautions)]))
  return chores.map((one) => ({ ...one, chore: { ...one.chore, cautions: kept.get(one)! } }))
}

/** What happened that chores follow from: where thread was joined or not, and tasks at which it was measured. */
export interface Happened {
  readonly joined: ReadonlyMap<string, boolean>
  readonly measured: readonly string[]
  /** Lines that were made out of turn. */
  readonly filled?: Filled
}

const NOTHING: Happened = { joined: new Map(), measured: [] }

/** Place among the rows of a part and copy that a task's key says; null for another part or copy. */
function placeOfKey(key: string, part: Part, copy: number, rows: RowList): number | null {
  const start = `${part.id}/${copy}/`
  if (!key.startsWith(start)) return null
  const row = key.slice(start.length).split('/')[0]!
  return rows.placeOf(row === 'end' ? Infinity : Number(row))
}

function joinsOf(joined: ReadonlyMap<string, boolean>, part: Part, copy: number, rows: RowList): Joins {
  const out = new Map<number, boolean>()
  for (const [key, was] of joined) {
    const k = placeOfKey(key, part, copy, rows)
    if (k !== null) out.set(k, was)
  }
  return out
}

/** Everything that is done besides beads, with its place among the rows. */
export function choresOf(
  piece: Piece,
  order: Order,
  { joined, measured }: Happened = NOTHING,
  style: ChoreStyle = PLAIN,
): PlacedChore[] {
  const out: PlacedChore[] = []
  const [first, last] = [piece.parts[0]!, piece.parts.at(-1)!]
  const fitted = fittedPart(piece)
  const ready = prepare(piece, order, style)
  if (ready.items.length > 0) out.push({ part: first.id, copy: 1, k: 0, chore: ready })
  const finishing = finish(piece)
  for (const part of piece.parts) {
    const rows = rowListOf(piece, part)
    const loading = load(piece, part)
    const rests = pauses(part, rows)
    const taken = measured.flatMap((key) => placeOfKey(key, part, 1, rows) ?? [])
    // What is strung together at the end only has no length to measure before.
    const stops = part === fitted && !techniqueOf(part).anyOrder ? measureRows(piece, part, rows, taken) : []
    for (let copy = 1; copy <= order.copies; copy++) {
      const put = (k: number, c: Chore) => out.push({ part: part.id, copy, k, chore: c })
      if (loading) put(0, loading)
      const own = workplaceOf(piece, part)
      if (own?.mirror !== undefined && isMirrorCopy(piece, part, copy))
        put(0, chore('mirror', 'Mirror the first', { says: [own.mirror], minutes: 1 }))
      if (own?.bend) put(0, handled('bend', own.bend))
      if (own?.begin) put(0, handled('load', own.begin))
      for (const stop of rests) put(stop.k, chore('pause', 'Look at the tapes', { says: [stop.says], minutes: 1 }))
      for (const stop of copy === 1 ? stops : [])
        put(
          stop.k,
          chore('measure', 'Lay the tape along it', {
            says: [stop.why],
            minutes: MINUTES.measure,
          }),
        )
      for (const k of joinRows(piece, part, rows, joinsOf(joined, part, copy, rows)))
        put(
          k,
          chore('join', k < rows.count ? 'Join new thread' : 'Join thread for sewing up', {
            says: [
              `Leave a tail of ${showLongLength(piece.supply.tailMm, style.unit)}; lead the new thread through a ` +
                'few beads behind, and come out where the old one ends.',
            ],
            minutes: MINUTES.join,
          }),
        )
      if (part.on)
        put(
          rows.count,
          chore('attach', `Join ${part.name} on`, {
            says: [`${jointWords(piece.parts, part, (mm) => showLength(mm, style))}.`],
            minutes: MINUTES.hang,
          }),
        )
      if (part === last) for (const c of finishing) put(rows.count, c)
      if (own?.pair && part === last && isSecond(piece, copy)) put(rows.count, handled('pair', own.pair))
    }
  }
  return toldOnce(out)
}

/** The agenda of a making: rows, and all that is done besides. */
export const courseOf = (
  piece: Piece,
  order: Order,
  happened: Happened = NOTHING,
  style: ChoreStyle = PLAIN,
): Agenda => agendaOf(piece, order, choresOf(piece, order, happened, style), happened.filled)
