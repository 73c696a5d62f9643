import { laced, type Lacing } from '../../recipe/laced'
import { wireDiameterMm } from '../../units/wire-gauge'
import { FRAME_SHAPES } from '../../wire/shape'
import { BEADS } from '../material'
import type { Settings } from '../technique'
import { framePlanSchema, frameSettings, frameSize, openMmOf, readFrame, topLoop } from './frame-own'
import { gaugeField, hardnessField, SLIPS, TUCKED, WIRE_CAUTIONS, wireWork, inMm } from './wire-work'
import { measure, layoutOf } from './frame-laid'
import { findings, wiresOf, guidesOf } from './frame-said'
import { full, sizedTo, crossSide, SIZES, partsOf } from './frame-full'

/**
 * A frame bent from wire with beads on it, and wires across it. The first line is the frame, from its top round its
 * right side; every other line is a wire across, from left to right. docs/wire.md.
 */
export const frame = wireWork({
  id: 'wire-frame',
  name: 'Frame of wire',
  summary: 'Wire bent to a round, drop, heart or the like, beads on it, and wires across it.',
  settings: frameSettings,
  fields: [
    {
      ...{ key: 'shape', label: 'Shape', help: 'As the wire is bent.', kind: 'choice' as const },
      choices: FRAME_SHAPES.map((value) => ({ value, label: value })),
    },
    {
      key: 'by',
      label: 'Its size',
      help: 'Give the size and its beads follow, or give the beads and its size follows.',
      kind: 'choice',
      choices: [
        { value: 'size', label: 'is given' },
        { value: 'beads', label: 'follows from its beads' },
      ],
    },
    { key: 'wide', label: 'Width', help: 'Between the middles of its wire.', kind: 'length' },
    {
      ...{ key: 'long', label: 'Height', help: 'From its top to its lowest point.', kind: 'length' as const },
      counts: (own: Settings) => !['circle', 'polygon'].includes(readFrame(own).shape),
    },
    {
      ...{ key: 'upper', label: 'Widest at', help: 'Share of its height from the top.', kind: 'number' as const },
      counts: (own: Settings) => readFrame(own).shape === 'egg',
    },
    {
      ...{ key: 'corners', label: 'Corners', help: 'Of the polygon.', kind: 'count' as const },
      counts: (own: Settings) => readFrame(own).shape === 'polygon',
    },
    {
      ...{ key: 'rounded', label: 'Rounded by', help: 'Share of a side.', kind: 'number' as const },
      counts: (own: Settings) => readFrame(own).shape === 'polygon',
    },
    {
      key: 'source',
      label: 'Frame',
      help: 'Bent from a length of wire, or a hoop as it is bought.',
      kind: 'choice',
      choices: [
        { value: 'bent', label: 'bent from wire' },
        { value: 'bought', label: 'bought' },
      ],
    },
    {
      ...{ key: 'open', label: 'Left open', help: 'At its top; 0 where its ends meet.', kind: 'length' as const },
      counts: (own: Settings) => readFrame(own).source === 'bent',
    },
    gaugeField('gauge', 'Frame, gauge', 'A larger number is thinner.', [16, 26], true),
    hardnessField,
    {
      key: 'loops',
      label: 'Loops',
      help: 'Turned on its ends: where they meet, or one on each where it is open.',
      kind: 'number',
    },
    { key: 'pliers', label: 'Pliers', help: 'Round nose where the loops are turned.', kind: 'length' },
    { key: 'even', label: 'Even count', help: 'Leaves a gap at the bottom, on the axis.', kind: 'flag' },
    { key: 'room', label: 'Room left, in beads', help: 'For wraps; about one.', kind: 'number' },
    gaugeField('cross', 'Wires across, gauge', 'All of them; they wrap round the frame.', [22, 34], true),
    { key: 'turns', label: 'Turns of a wrap', help: 'Round the frame at both ends of a wire.', kind: 'count' },
  ],
  plan: framePlanSchema,
  material: { ...BEADS, usualSpec: 'round-8' },
  kinds: ['earrings', 'pendant'],
  closure: 'ear-wire',
  words: {
    line: 'wire',
    place: 'bead',
    across: 'on the fullest wire',
    acrossTitle: 'Fullest wire',
    thing: 'Frame',
    sample: {
      name: 'frame',
      how: 'Bend one frame, string it, and measure from the middle of its loop to its lowest bead.',
      counted: 'Frames measured',
      where: 'From the loop down.',
      wide: true,
    },
  },
  lineTitle: (i) => (i === 0 ? 'Frame' : `Wire ${i} across`),
  first: {
    sizes: SIZES,
    edge: 0,
    period: ({ settings }) => 1 + readFrame(settings).crosses,
    parts: (r, _count, work) => partsOf(work)[r] ?? [],
  },
  shape(work, rows) {
    const all = measure(work, rows)
    const { own, curve, beads } = all
    const { lengthMm, widthMm, thick } = frameSize(own, curve, beads)
    const { upMm } = topLoop(own)
    return {
      layout: layoutOf(work, all),
      ...{ lengthMm, widthMm, thicknessMm: thick },
      lengthFormula:
        `frame ${inMm(lengthMm - upMm - thick / 2)} high + half a bead` +
        (upMm > 0 ? ` + ${inMm(upMm)} to the middle of its loop` : ''),
      widthFormula: `frame ${inMm(widthMm - thick)} wide + its beads ${inMm(thick)}`,
      wires: wiresOf(all),
      guides: guidesOf(all),
      findings: findings(all),
    }
  },
  program(work, rows) {
    const { own, crosses } = measure(work, rows)
    const thread = (k: number, w: number) => `x${k}w${w}`
    const carriers = crosses.flatMap(({ filled }, k) =>
      filled.wires.map((_, w) => ({
        id: thread(k, w),
        name: filled.wires.length > 1 ? `wire ${k + 1}, ${w + 1} of ${filled.wires.length}` : `wire ${k + 1}`,
        kind: 'wire' as const,
        mm: wireDiameterMm(own.cross),
      })),
    )
    const lacings = crosses.map((cross, k): Lacing[] => {
      const names = cross.filled.wires.map((_, w) => thread(k, w))
      const wraps = (note: string) =>
        names.map((by): Lacing => ({ do: 'wrap', by, round: 'frame', turns: own.turns, note }))
      const left = cross.left ?? cross.gap
      return [
        ...wraps(`in gap ${left} on the left`),
        ...cross.filled.lacing(names),
        ...wraps(`in gap ${cross.gap} on the right`),
        { do: 'say', text: 'draw the wraps close, cut both ends and press them flat between the beads' },
      ]
    })
    const open = openMmOf(own) > 0
    const first = open && own.loops > 0 ? [{ do: 'say', text: 'turn a loop on one end, upright' } as const] : []
    const close =
      own.source === 'bought'
        ? 'close the hoop'
        : open
          ? 'turn a loop on the other end, upright and facing the same way'
          : own.loops > 0
            ? 'bring the ends together, turn a loop on each, and press the loops onto each other'
            : 'lay the ends over each other'
    const beads = rows[0]?.length ?? 0
    return laced(
      rows,
      [
        [
          ...first,
          {
            do: 'pick',
            by: 'frame',
            at: Array.from({ length: beads }, (_, k) => k),
            note: 'from the top, round the right side',
          },
          { do: 'say', text: close },
        ],
        ...lacings,
      ],
      {
        unit: 'wire',
        carriers: [{ id: 'frame', name: 'frame', kind: 'wire', mm: wireDiameterMm(own.gauge) }, ...carriers],
        fixtures: { frame: { name: 'frame', d: wireDiameterMm(own.gauge), holes: 1, pitch: 0 } },
        cut: { folded: false, each: 'motif' },
      },
    )
  },
  // Its loops lie in its plane; the ring through both of an open one stands across it.
  eyeAcross: (own) => openMmOf(readFrame(own)) > 0,
  side: { upright: true, stands: true, full, sizedTo, crosses: crossSide },
  lengthOf(work) {
    if (!work.lineLength) return readFrame(work.settings).long
    const { own, curve, beads } = measure(work)
    return frameSize(own, curve, beads).lengthMm
  },
  rowsFor: (_mm, work) => 1 + readFrame(work.settings).crosses,
  firstLines: (count, work) => Array.from({ length: count }, (_, r) => (partsOf(work)[r] ?? [0]).length),
  workplace(work) {
    const { own, crosses } = measure(work)
    const bought = own.source === 'bought'
    return {
      tools: [
        ...['Round-nose pliers', 'Chain-nose pliers', 'Flush cutter', 'Nylon-jaw pliers', 'File'],
        ...(bought ? [] : ['Mandrel or anything round', 'Bending guide, printed']),
        'Eye protection',
      ],
      needs: bought
        ? [
            {
              name: `${own.shape === 'circle' ? 'Hoop' : 'Frame'}, ${inMm(own.wide)} across`,
              count: 1,
              says: 'one that opens',
            },
          ]
        : openMmOf(own) > 0
          ? [{ name: 'Ring or short chain', count: 1, says: 'through both loops of the open frame, to hang it by' }]
          : [],
      ready: [
        ...(bought
          ? []
          : [{ id: 'straighten', text: 'Draw the wire through nylon jaws until it is straight', minutes: 2 }]),
        {
          id: 'try',
          text: 'Try the smallest hole on the frame’s wire, and where wires meet on all of them',
          minutes: 2,
        },
      ],
      cautions: WIRE_CAUTIONS,
      ...(bought
        ? {}
        : {
            bend: {
              title: 'Bend the frame',
              says: [
                'Bend the wire until it lies on its line in the guide, both tails as long as each other.',
                'Turn it over and lay it on the line again: it should be alike from both sides.',
              ],
              minutes: 8,
              cautions: [SLIPS],
            },
          }),
      mirror:
        'It is the mirror of the first: string the frame from its top round the left side, and begin every wire ' +
        'across on the right. Read left for right in what follows.',
      fasten: {
        title: 'Tuck in',
        says: [
          crosses.length > 0
            ? 'Press every cut end flat between two beads with chain-nose pliers, on the inside of the frame.'
            : 'Press the cut ends flat.',
        ],
        minutes: 4,
        cautions: [TUCKED],
      },
      pair: {
        title: 'Lay the pair together',
        says: ['Lay one upon the other, face to face: gaps, rows and loops should cover each other.'],
        minutes: 2,
      },
      glued: false,
    }
  },
  mostLines: 60,
})
