import { clampBox, fillBox, boxBetween, moveBox, pasteClip, type Clip } from '#core/pattern/clip'
import { floodFrom, lineBetween, rectangleBetween, runBetween } from '#core/pattern/place'
import { isScattered } from '#core/piece/drawing'
import { withImages, type SymmetryKind } from '#core/pattern/symmetry'
import { keyOf } from '#core/grid/key'
import { layingSteps, swapSteps, type Laying } from '#core/piece/edit'
import { columnsOf, isInside, numberAt, type Part } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import type { Place, Box } from '#core/technique/lattice'

export type ToolId = 'lay' | 'run' | 'line' | 'box' | 'fill' | 'swap' | 'lift' | 'take' | 'select' | 'move' | 'paste'

/** What a gesture stands on. */
export interface Ground {
  readonly part: Part
  readonly number: number
  readonly clip: Clip | null
  readonly selection: Box | null
  readonly symmetry: SymmetryKind
}

/** A gesture under way: a value; each event gives the next one. */
export interface Gesture {
  readonly from: Place
  readonly to: Place
  /** Beads that it would lay, by place key. */
  readonly laying: Laying
}

/** What a finished gesture asks for. */
export interface Outcome {
  readonly label: string
  readonly steps: readonly Step[]
  readonly select?: Box | null
  readonly take?: number
}

/**
 * A tool is a small state machine that runs without a canvas: down begins a gesture, move carries it on, up turns it
 * into steps. Escape drops the gesture; nothing was changed.
 */
interface Tool {
  readonly id: ToolId
  readonly label: string
  readonly key: string
  readonly hint: string
  /** Whether a gesture spans from one place to another, so that the keyboard marks its start and its end. */
  readonly spans: boolean
  down(ground: Ground, at: Place): Gesture
  move(ground: Ground, gesture: Gesture, at: Place): Gesture
  up(ground: Ground, gesture: Gesture): Outcome
}

/** What laying a bead on places changes, images of the live symmetry included. */
const keysOf = ({ part, symmetry }: Ground, places: readonly Place[], number: number): Laying =>
  withImages(part, new Map(places.map((p) => [keyOf(columnsOf(part), p.c, p.r), number])), symmetry)

const gesture = (from: Place, to: Place, laying: Laying): Gesture => ({ from, to, laying })

const laid =
  (label: string) =>
  ({ part }: Ground, { laying }: Gesture): Outcome => ({ label, steps: layingSteps(part, laying) })

type Reach = (part: Part, from: Place, to: Place) => readonly Place[]

/** Tools that lay the chosen bead on what lies between two places. */
const spanning = (id: ToolId, label: string, key: string, hint: string, between: Reach): Tool => ({
  id,
  label,
  key,
  hint,
  spans: true,
  down: (ground, at) =>
    gesture(
      at,
      at,
      isInside(ground.part, at) ? keysOf(ground, between(ground.part, at, at), ground.number) : new Map(),
    ),
  move: (ground, g, at) =>
    gesture(
      g.from,
      at,
      isInside(ground.part, g.from) ? keysOf(ground, between(ground.part, g.from, at), ground.number) : new Map(),
    ),
  up: laid(label),
})

const placesIn = (box: Box | null): Place[] =>
  box === null
    ? []
    : Array.from({ length: box.columns * box.rows }, (_, k) => ({
        c: box.c + (k % box.columns),
        r: box.r + Math.floor(k / box.columns),
      }))

/** Tools that follow the hand. */
const freehand = (
  id: ToolId,
  label: string,
  key: string,
  hint: string,
  numberOf: (ground: Ground) => number,
): Tool => ({
  id,
  label,
  key,
  hint,
  spans: false,
  down: (ground, at) =>
    gesture(at, at, isInside(ground.part, at) ? keysOf(ground, [at], numberOf(ground)) : new Map()),
  move: (ground, g, at) =>
    gesture(
      g.from,
      at,
      new Map([...g.laying, ...keysOf(ground, lineBetween(ground.part, g.to, at), numberOf(ground))]),
    ),
  up: laid(label),
})

/** Tools that act on the one place where they are set down. */
const pointing = (
  id: ToolId,
  label: string,
  key: string,
  hint: string,
  act: (ground: Ground, at: Place) => Outcome,
): Tool => ({
  id,
  label,
  key,
  hint,
  spans: false,
  down: (_, at) => gesture(at, at, new Map()),
  move: (_, g, at) => gesture(g.from, at, g.laying),
  up: (ground, g) => act(ground, g.to),
})

export const TOOLS: readonly Tool[] = [
  freehand('lay', 'Lay', 'L', 'Lays the chosen bead, one by one or as you draw.', (g) => g.number),
  spanning('run', 'Run', 'R', 'Lays a run along one row, as the thread strings it.', runBetween),
  spanning('line', 'Line', 'N', 'Lays a straight line of beads.', lineBetween),
  spanning('box', 'Box', 'B', 'Lays a box of beads from corner to corner.', (part, from, to) =>
    isScattered(part) && isInside(part, to)
      ? rectangleBetween(part, from, to)
      : placesIn(clampBox(part, boxBetween(from, to))),
  ),
  pointing('fill', 'Fill', 'F', 'Fills a patch of equal beads that touch.', ({ part, number, symmetry }, at) => ({
    label: 'Fill',
    steps: layingSteps(
      part,
      withImages(part, new Map(Array.from(floodFrom(part, at), (key) => [key, number])), symmetry),
    ),
  })),
  pointing(
    'swap',
    'Swap',
    'W',
    'Changes every bead like this one, everywhere, for the chosen one.',
    ({ part, number }, at) => ({
      label: 'Swap',
      steps: isInside(part, at) ? swapSteps(part, numberAt(part, at.c, at.r), number) : [],
    }),
  ),
  freehand('lift', 'Lift', 'I', 'Takes beads away; the place stays empty.', () => 0),
  pointing('take', 'Take', 'T', 'Chooses the bead that lies here.', ({ part }, at) => ({
    label: 'Take',
    steps: [],
    take: numberAt(part, at.c, at.r),
  })),
  {
    id: 'select',
    label: 'Select',
    key: 'S',
    hint: 'Marks a box to count, copy, turn, repeat, fill or clear.',
    spans: true,
    down: (_, at) => gesture(at, at, new Map()),
    move: (_, g, at) => gesture(g.from, at, g.laying),
    up: (_, g) => ({ label: 'Select', steps: [], select: boxBetween(g.from, g.to) }),
  },
  {
    id: 'move',
    label: 'Move',
    key: 'D',
    hint: 'Drags the selected beads to another place.',
    spans: true,
    down: (_, at) => gesture(at, at, new Map()),
    move: ({ part, selection }, g, at) =>
      gesture(
        g.from,
        at,
        selection
          ? moveBox(part, selection, { c: selection.c + at.c - g.from.c, r: selection.r + at.r - g.from.r })
          : new Map(),
      ),
    up: ({ part, selection }, g) => ({
      label: 'Move',
      steps: layingSteps(part, g.laying),
      ...(selection
        ? { select: { ...selection, c: selection.c + g.to.c - g.from.c, r: selection.r + g.to.r - g.from.r } }
        : {}),
    }),
  },
  {
    id: 'paste',
    label: 'Set down',
    key: 'V',
    hint: 'Sets the copied beads down where you press.',
    spans: false,
    down: ({ part, clip, symmetry }, at) =>
      gesture(at, at, clip ? withImages(part, pasteClip(part, clip, at), symmetry) : new Map()),
    move: ({ part, clip, symmetry }, g, at) =>
      gesture(g.from, at, clip ? withImages(part, pasteClip(part, clip, at), symmetry) : new Map()),
    up: laid('Set down'),
  },
]

const BY_ID = new Map(TOOLS.map((t) => [t.id, t]))

export const toolOf = (id: ToolId): Tool => BY_ID.get(id)!

/** Steps that put one bead (0: none) on a whole box. */
export const boxSteps = (part: Part, box: Box, number: number): Step[] => layingSteps(part, fillBox(part, box, number))
