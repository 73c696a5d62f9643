import { z } from 'zod'
import { strapPieces } from '../../hang/chain'
import { problem } from '../../problem'
import { plainNumber } from '../../units/length'
import { freeDrawing } from '../drawing'
import type { Holds } from '../held'
import type { Strung } from '../strung'
import { rangeOf, type Settings, type ThreadRun, type Work } from '../technique'
import { findingOutline } from './finding-outline'
import {
  chainLinks,
  findingLong,
  findingSettings,
  FINDINGS,
  findingWide,
  isWornOn,
  linksOfChain,
  readFinding,
  type FindingKind,
  type OwnFinding,
} from './finding-own'

/** For which kinds a setting counts. */
const is =
  (...kinds: FindingKind[]) =>
  (own: Settings): boolean =>
    kinds.includes(readFinding(own).kind)
const not =
  (...kinds: FindingKind[]) =>
  (own: Settings): boolean =>
    !kinds.includes(readFinding(own).kind)

/** What a hoop carries on its outside: as many beads as lie side by side on its circumference. */
export const beadsRound = (outsideMm: number, wideMm: number): number =>
  Math.floor((Math.PI * outsideMm) / wideMm + 1e-9)

const NOTHING: Holds = { places: [], bentMm: null, room: null }

function holds({ settings: given }: Pick<Work, 'settings'>, side: 'start' | 'end' | 'left' | 'right'): Holds {
  const own = readFinding(given)
  if (side !== 'end') return NOTHING
  switch (own.kind) {
    case 'holes':
      return {
        ...NOTHING,
        places: Array.from({ length: own.holes }, (_, hole) => ({
          x: (hole - (own.holes - 1) / 2) * own.pitch,
          y: 0,
        })),
      }
    case 'bar':
      return { ...NOTHING, room: (wide) => Math.floor(own.across / wide + 1e-9) }
    case 'hoop':
      return { ...NOTHING, bentMm: own.across / 2, room: (wide) => beadsRound(own.across, wide) }
    case 'strap': {
      const side = own.across / 2
      return own.strap === 'two' ? { ...NOTHING, places: [-side, side].map((x) => ({ x, y: 0 })) } : NOTHING
    }
    case 'chain':
      return { ...NOTHING, places: linksOfChain(own).map(({ x, onEdge }) => ({ x, y: 0, onEdge })) }
    default:
      return NOTHING
  }
}

/** What such a finding is called. */
export const FINDING_NAMES: Readonly<Record<FindingKind, string>> = {
  holes: 'Bar with holes',
  bar: 'Bar',
  hoop: 'Hoop',
  drop: 'Drop',
  tassel: 'Tassel',
  strap: 'Cord to wear it on',
  chain: 'Chain round the neck',
}

/** What to ask for in a shop; nothing of a strap, which is cut. */
function boughtAs(own: OwnFinding): string {
  const mm = (value: number) => `${plainNumber(value)} mm`
  switch (own.kind) {
    case 'holes':
      return `Bar with ${own.holes} holes, ${mm(own.pitch)} apart`
    case 'bar':
      return `Bar, ${mm(own.across)} wide`
    case 'hoop':
      return `Hoop, ${mm(own.across)} across outside`
    case 'drop':
      return `Drop, ${mm(own.across)} × ${mm(own.tall)}`
    case 'tassel':
      return `Tassel, ${mm(own.tall)} long`
    case 'strap':
    case 'chain':
      return ''
  }
}

/** Cord for the knot or cap at each end of a piece, mm (common practice). */
const CORD_END_MM = 25

/** Strap or chain to cut, from the length of the necklace, mm. */
function wornOn(own: OwnFinding): ThreadRun[] {
  const mm = (value: number) => `${plainNumber(Math.round(value * 10) / 10)} mm`
  const less = own.clasp > 0 ? ` − ${mm(own.clasp)} of clasp` : ''
  switch (own.kind) {
    case 'strap': {
      const frontMm = own.strap === 'two' ? own.across : null
      const { pieces, eachMm } = strapPieces(own.tall, { claspMm: own.clasp, frontMm })
      const front = frontMm === null ? '' : ` − ${mm(frontMm)} of front`
      const half = pieces === 2 ? [`(`, `) / 2`] : ['', '']
      return [
        {
          id: 'cord',
          name: 'Cord to wear it on',
          count: pieces,
          joined: false,
          lengthMm: eachMm + 2 * CORD_END_MM,
          formula:
            `${half[0]}${mm(own.tall)} of necklace${less}${front}${half[1]} + ` + `2 × ${CORD_END_MM} mm for its ends`,
          shopName: `Cord, ${mm(own.thick)}`,
        },
      ]
    }
    case 'chain': {
      const links = chainLinks(own)
      return [
        {
          id: 'chain',
          name: `Chain of ${links} links`,
          count: 1,
          joined: false,
          exact: true,
          lengthMm: links * own.pitch,
          formula: `${mm(own.tall)} of necklace${less}: ${links} links of ${mm(own.pitch)}`,
          shopName: `Chain, links of ${mm(own.pitch)}`,
        },
      ]
    }
    default:
      return []
  }
}

export const finding: Strung = {
  id: 'finding',
  name: 'Finding',
  summary:
    'A bought bar with holes, hoop, drop or tassel, a cord or chain: no beads of its own; other parts hang on it.',
  settings: findingSettings,
  fields: [
    {
      key: 'kind',
      label: 'What it is',
      help: 'Beadwork hangs on a bar, a hoop, a cord or a chain; a drop and a tassel hang themselves.',
      kind: 'choice',
      choices: FINDINGS.map((value) => ({ value, label: FINDING_NAMES[value].toLowerCase() })),
    },
    { key: 'holes', label: 'Holes', help: 'In a row.', kind: 'count', counts: is('holes') },
    {
      key: 'pitch',
      label: 'From one to the next',
      help: 'Holes or links, from middle to middle.',
      kind: 'length',
      counts: is('holes', 'chain'),
    },
    {
      key: 'across',
      label: 'Across',
      help: 'Width; of a hoop its outside; of a chain as much as is shown; of two straps the front between them.',
      kind: 'length',
      counts: not('holes'),
    },
    {
      key: 'tall',
      label: 'Length',
      help: 'From its loop to where beads hang, or to its lowest end; of a cord or chain the necklace as it is worn.',
      kind: 'length',
      counts: not('hoop'),
    },
    { key: 'thick', label: 'Thick', help: 'The wire, bar or cord.', kind: 'length' },
    { key: 'grams', label: 'Weighs, g', help: 'One of them; it counts in the weight of an earring.', kind: 'number' },
    {
      key: 'eye',
      label: 'Its loop',
      help: 'Which way it faces follows from that, and from rings between.',
      kind: 'choice',
      choices: [
        { value: 'flat', label: 'lies in its face' },
        { value: 'across', label: 'stands across it' },
      ],
      counts: not('strap', 'chain'),
    },
    {
      key: 'clasp',
      label: 'Clasp',
      help: 'What it takes of the necklace; 0 where it goes over the head.',
      kind: 'length',
      counts: is('strap', 'chain'),
    },
    {
      key: 'strap',
      label: 'The cord',
      help: 'One piece that the pendant slides on, or one to each side of a front.',
      kind: 'choice',
      choices: [
        { value: 'slides', label: 'in one piece' },
        { value: 'two', label: 'one to each side' },
      ],
      counts: is('strap'),
    },
    {
      key: 'links',
      label: 'Its links',
      help: 'What hangs faces as its link does.',
      kind: 'choice',
      choices: [
        { value: 'flat', label: 'lie flat' },
        { value: 'turned', label: 'stand across each other' },
      ],
      counts: is('chain'),
    },
  ],
  plan: z.strictObject({}),
  making: 'hang',
  kinds: [],
  words: {
    line: 'line',
    place: 'bead',
    across: 'beads',
    acrossTitle: 'Beads',
    thing: 'Finding',
    sample: { name: 'sample', how: 'Measure it with a caliper.', counted: 'Findings', where: '', wide: false },
  },
  drawing({ settings: given, bead }) {
    const own = readFinding(given)
    return freeDrawing({
      placed: [],
      carriers: findingOutline(own),
      widthMm: findingWide(own),
      lengthMm: findingLong(own),
      bead,
    })
  },
  extent({ settings: given }) {
    const own = readFinding(given)
    const [width, length] = [findingWide(own), findingLong(own)]
    return {
      lengthMm: rangeOf(length, 0),
      widthMm: rangeOf(width, 0),
      thicknessMm: own.thick,
      basis: { kind: 'nominal', spread: 0 },
      lengthFormula: own.kind === 'hoop' ? `loop and ${own.across} mm of hoop` : `${length} mm of ${own.kind}`,
      widthFormula: own.kind === 'holes' ? `${own.holes} holes, ${own.pitch} mm apart, and its edges` : 'as bought',
    }
  },
  path: ({ settings: given }) => ({ passes: 0, runs: wornOn(readFinding(given)) }),
  lengthOf: ({ settings: given }) => findingLong(readFinding(given)),
  rowsFor: () => 0,
  firstLines: () => [],
  workplace: ({ settings: given }) => ({
    tools: [],
    needs: [{ name: boughtAs(readFinding(given)), count: 1, says: '' }].filter(({ name }) => name !== ''),
    ready: [],
    glued: false,
  }),
  holds,
  apart: ({ settings: given }) => isWornOn(readFinding(given)),
  eyeAcross: (given) => readFinding(given).eye === 'across',
  grams: ({ settings: given }) => readFinding(given).grams,
  check: ({ rows }) =>
    rows > 0 ? [problem('finding-beads', 'lines', 'A finding has no beads of its own: hang another part on it.')] : [],
}
