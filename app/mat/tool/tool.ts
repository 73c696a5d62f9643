import { fillBox, boxBetween, pasteClip, type Box, type Clip } from '#core/pattern/clip'
import { floodFrom, lineBetween, runBetween } from '#core/pattern/place'
import { layingSteps, placeKey, swapSteps, type Laying } from '#core/piece/edit'
import { columnsOf, isInside, numberAt, type Part } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import type { Place } from '#core/technique/lattice'

export type ToolId = 'lay' | 'run' | 'line' | 'fill' | 'swap' | 'lift' | 'take' | 'select' | 'paste'

/** What a gesture stands on. */
export interface Ground { readonly part: Part, readonly number: number, readonly clip: Clip | null }

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
 * A tool is a small state machine that runs without a canvas: down begins a gesture, move carries it on, up turns it into steps.
 * Escape drops the gesture; nothing was changed.
 */
export interface Tool {
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

const keysOf = (part: Part, places: readonly Place[], number: number): Map<number, number> =>
  new Map(places.map(p => [placeKey(columnsOf(part), p.c, p.r), number]))

const gesture = (from: Place, to: Place, laying: Laying): Gesture => ({ from, to, laying })

const laid = (label: string) => ({ part }: Ground, { laying }: Gesture): Outcome => ({ label, steps: layingSteps(part, laying) })

type Reach = (part: Part, from: Place, to: Place) => readonly Place[]

/** Tools that lay the chosen bead on what lies between two places. */
const spanning = (id: ToolId, label: string, key: string, hint: string, between: Reach): Tool => ({
  id, label, key, hint, spans: true,
  down: ({ part, number }, at) => gesture(at, at, isInside(part, at) ? keysOf(part, between(part, at, at), number) : new Map()),
  move: ({ part, number }, g, at) => gesture(g.from, at, isInside(part, g.from) ? keysOf(part, between(part, g.from, at), number) : new Map()),
  up: laid(label),
})

/** Tools that follow the hand. */
const freehand = (id: ToolId, label: string, key: string, hint: string, numberOf: (ground: Ground) => number): Tool => ({
  id, label, key, hint, spans: false,
  down: (ground, at) => gesture(at, at, isInside(ground.part, at) ? keysOf(ground.part, [at], numberOf(ground)) : new Map()),
  move: (ground, g, at) => gesture(g.from, at, new Map([...g.laying, ...keysOf(ground.part, lineBetween(ground.part, g.to, at), numberOf(ground))])),
  up: laid(label),
})

/** Tools that act on the one place where they are set down. */
const pointing = (id: ToolId, label: string, key: string, hint: string, act: (ground: Ground, at: Place) => Outcome): Tool => ({
  id, label, key, hint, spans: false,
  down: (_, at) => gesture(at, at, new Map()),
  move: (_, g, at) => gesture(g.from, at, g.laying),
  up: (ground, g) => act(ground, g.to),
})

export const TOOLS: readonly Tool[] = [
  freehand('lay', 'Lay', 'L', 'Lays the chosen bead, one by one or as you draw.', g => g.number),
  spanning('run', 'Run', 'R', 'Lays a run along one row, as the thread strings it.', runBetween),
  spanning('line', 'Line', 'N', 'Lays a straight line of beads.', lineBetween),
  pointing('fill', 'Fill', 'F', 'Fills a patch of equal beads that touch.', ({ part, number }, at) => ({
    label: 'Fill', steps: layingSteps(part, new Map(Array.from(floodFrom(part, at), key => [key, number]))),
  })),
  pointing('swap', 'Swap', 'W', 'Changes every bead like this one, everywhere, for the chosen one.', ({ part, number }, at) => ({
    label: 'Swap', steps: isInside(part, at) ? swapSteps(part, numberAt(part, at.c, at.r), number) : [],
  })),
  freehand('lift', 'Lift', 'I', 'Takes beads away; the place stays empty.', () => 0),
  pointing('take', 'Take', 'T', 'Chooses the bead that lies here.', ({ part }, at) => ({ label: 'Take', steps: [], take: numberAt(part, at.c, at.r) })),
  {
    id: 'select', label: 'Select', key: 'S', hint: 'Marks a box to count, copy, mirror, fill or clear.', spans: true,
    down: (_, at) => gesture(at, at, new Map()),
    move: (_, g, at) => gesture(g.from, at, g.laying),
    up: (_, g) => ({ label: 'Select', steps: [], select: boxBetween(g.from, g.to) }),
  },
  {
    id: 'paste', label: 'Set down', key: 'V', hint: 'Sets the copied beads down where you press.', spans: false,
    down: ({ part, clip }, at) => gesture(at, at, clip ? pasteClip(part, clip, at) : new Map()),
    move: ({ part, clip }, g, at) => gesture(g.from, at, clip ? pasteClip(part, clip, at) : new Map()),
    up: laid('Set down'),
  },
]

const BY_ID = new Map(TOOLS.map(t => [t.id, t]))

export const toolOf = (id: ToolId): Tool => BY_ID.get(id)!

/** Steps that put one bead (0: none) on a whole box. */
export const boxSteps = (part: Part, box: Box, number: number): Step[] => layingSteps(part, fillBox(part, box, number))
