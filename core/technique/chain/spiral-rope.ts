import { outlineOf } from '../../layout/body'
import type { Laid } from '../../layout/laid'
import type { Pose } from '../../layout/pose'
import type { Node, Run } from '../../recipe/run'
import type { Design } from './design'
import { END_BEADS, END_FIELDS, END_FINDINGS, endSteps, FINISHES, HITCHES, SURGEON } from './ends'

/**
 * Spiral rope: a core string, and loops over so many of its beads that follow each other round it. Each step adds one
 * core bead and one loop, and goes up through the last core beads; a motif is as many steps as a loop spans.
 */
export const spiralRope: Design = {
  id: 'spiral-rope',
  name: 'Spiral rope',
  summary: 'A core string with loops that wind round it, one core bead on at a time.',
  motif: 'turn',
  thing: 'Rope',
  version: 1,
  choices: { finish: FINISHES },
  help: {
    span: 'Core beads that a loop goes over.',
    seeds: 'At each side of the middle bead; loop and core beads should be about as long.',
  },
  place: unrolled,
  recipe: `
recipe spiral-rope "Spiral rope"
field span 3..6=4 "Core beads under a loop"
field seeds 1..4=1 "Seeds beside the middle of a loop"
${END_FIELDS}
bead core round-11 "core bead" "core beads"
bead out round-11 "outer seed" "outer seeds"
bead middle ball-3-mm "middle bead" "middle beads"
${END_BEADS}
carrier thread thread 0.15 "thread"
${END_FINDINGS}
start
${SURGEON}
${endSteps()}
  pick core*span
motif
  each i*span
    pick core out*seeds middle out*seeds
    when i<span-1
      pass prev/core[i+1..-1]
    pass core[0..i] -- "up through the last core beads; push the loop beside the one before"
end
${endSteps()}
${HITCHES}
`,
}

/** Room between the core string and the surface of the rope beside it, mm. */
const BESIDE_MM = 1

/**
 * The rope as it is seen unrolled: the core string at one side, its loops beside it as they follow each other round
 * it, each moved round by as much as its thickest bead needs beside the one before.
 */
function unrolled(run: Run): Laid | null {
  const { nodes } = run
  const poses: (Pose | null)[] = nodes.map(() => null)
  const cores = nodes.filter(({ name }) => name === 'core')
  const first = cores[0]?.spec
  if (!first) return null
  const thickOf = (list: readonly Node[]): number => list.reduce((most, { spec }) => Math.max(most, spec?.d ?? 0), 0)
  const loops = nodes.filter(({ name, motif }) => motif >= 0 && (name === 'out' || name === 'middle'))
  const thick = thickOf(loops)
  const round = Math.PI * (first.d + thick)
  const step = Math.sqrt(Math.max(0.25, thick ** 2 - first.l ** 2))
  const top = first.d + BESIDE_MM + thick / 2
  cores.forEach((core, c) => {
    poses[core.id] = { x: (c + 0.5) * first.l, y: first.d / 2, turn: 0, flip: 1 }
  })
  const span = cores.filter(({ motif }) => motif < 0).length
  let c = -1
  let loop: Node[] = []
  const lay = (): void => {
    const long = loop.reduce((sum, { spec }) => sum + (spec?.l ?? 0), 0)
    const room = span * first.l
    const y = top + (((c - span) * step) % round)
    // From its upper end down; drawn out where it is shorter than what it spans.
    let x = (c + 1) * first.l + Math.max(0, long - room) / 2
    for (const { id, spec } of loop) {
      const share = (spec!.l * Math.max(long, room)) / long
      poses[id] = { x: x - share / 2, y, turn: Math.PI, flip: 1 }
      x -= share
    }
    loop = []
  }
  for (const node of nodes) {
    if (node.name === 'core') {
      if (loop.length > 0) lay()
      c++
    } else if (node.motif >= 0 && (node.name === 'out' || node.name === 'middle')) loop.push(node)
  }
  if (loop.length > 0) lay()
  const long = cores.length * first.l
  // Ends lie in line with the core, as they are strung.
  for (const side of [-1, 1]) {
    let x = side < 0 ? 0 : long
    for (const { id, spec, motif, isFixture } of nodes) {
      if (poses[id] || (side < 0 ? motif >= 0 : motif < 0)) continue
      const { l } = isFixture || !spec ? { l: 1 } : outlineOf(spec)
      poses[id] = { x: x + (side * l) / 2, y: first.d / 2, turn: 0, flip: 1 }
      x += side * l
    }
  }
  const xs = poses.flatMap((p) => (p ? [p.x] : []))
  return {
    poses,
    pitchMm: span * first.l,
    left: Math.min(...xs) - first.l / 2,
    right: Math.max(...xs) + first.l / 2,
    top: 0,
    bottom: top + round,
    acrossMm: first.d + 2 * thick,
  }
}
