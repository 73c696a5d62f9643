import type { Design } from './design'
import { END_BEADS, END_FIELDS, END_FINDINGS, endSteps, FINISHES_OR_MEET, HITCHES, SURGEON } from './ends'

/** A ring whose last point is the one that is named: its own, or the one that a ring of rings began with. */
function peaked(last: string, indent = 4): string {
  const isOwn = last === 'shared'
  const half = 'out*beside dome.b out*beside peak:side out*beside dome.b out*beside'
  return [
    ...(isOwn ? [`pick ${half} peak:shared`] : [`pick ${half}`, `pass ${last} -- "the ring of rings closes"`]),
    `pick ${half}`,
    'pass prev/shared -- "the outer ring closes"',
    'pass out[0..beside-1] dome[0].b',
    'pass dome[0]< -- "turn into the first hole"',
    'pick in*inner',
    'pass dome[3]<',
    'pick in*inner',
    'pass dome[2]<',
    'pick in*inner',
    'pass dome[1]<',
    'pick in*inner',
    'pass dome[0]< -- "the inner ring closes; draw it tight"',
    'pick heart -- "across the middle"',
    'pass dome[1]<',
    `pass dome[1].b out[3*beside..4*beside-1] ${last} -- "out at the point"`,
  ]
    .map((line) => ' '.repeat(indent) + line)
    .join('\n')
}

/**
 * Peaked rings in one thread: four domed beads with two holes, bicones between them at the four points, seeds beside
 * these, an inner ring of seeds and a bicone across. The next ring begins at the last point, which both share.
 */
export const peakedRings: Design = {
  id: 'peaked-rings',
  name: 'Peaked rings',
  summary: 'Rings of domed beads with a bicone at each point; neighbours share one.',
  motif: 'ring',
  version: 1,
  tunes: ['beside'],
  choices: { finish: FINISHES_OR_MEET },
  help: { inner: 'Between two domed beads, inside.', beside: 'At each side of a point.' },
  recipe: `
recipe peaked-rings "Peaked rings"
field inner 1..2=1 "Seeds in the inner ring"
field beside 1..2=1 "Seeds beside a point"
${END_FIELDS}
bead peak bicone-4-mm "point" "points"
bead dome domed-duo-5-x-2-5-mm "dome" "domes"
bead out round-11 "outer seed" "outer seeds"
bead in round-11 "inner seed" "inner seeds"
bead heart bicone-3-mm "heart" "hearts"
${END_BEADS}
carrier thread thread 0.15 "thread"
${END_FINDINGS}
start
${SURGEON}
  pick peak:shared
${endSteps('shared')}
motif
${peaked('shared', 2)}
end
${endSteps('prev/shared')}
${HITCHES}
`,
  ring: {
    start: `${SURGEON}
  pick peak:shared`,
    motif: `
  when m<n-1
${peaked('shared')}
  when m=n-1
${peaked('start/shared')}`,
    end: HITCHES,
  },
}
