import type { Design } from './design'
import { END_BEADS, END_FIELDS, END_FINDINGS, endSteps, FINISHES_OR_MEET, HITCHES, SURGEON } from './ends'

/**
 * Flowers on a stem: petals close round a heart, the thread going back through the first petal and through the one
 * beside the heart; every second flower may be a small one.
 */
export const stemmedFlowers: Design = {
  id: 'stemmed-flowers',
  name: 'Flowers on a stem',
  summary: 'Flowers of five to ten petals round a heart, joined by stems; every second one small if you like.',
  motif: 'flower',
  version: 1,
  tunes: ['stems'],
  choices: {
    finish: FINISHES_OR_MEET,
    mix: [
      { value: 'one', label: 'all of one size', is: 0 },
      { value: 'two', label: 'large and small in turn', is: 1 },
    ],
  },
  help: {
    stems: 'Between two flowers.',
    petals: 'Six or seven close best round a heart of their own size.',
    mix: 'Small flowers have petals and a heart of their own.',
  },
  recipe: `
recipe stemmed-flowers "Flowers on a stem"
field stems 1..12=3 "Stem beads"
field petals 5..10=6 "Petals"
field mix 0..1=0 "Flowers"
${END_FIELDS}
bead stem round-8 "stem bead" "stem beads"
bead petal round-8 "petal" "petals"
bead heart round-8 "heart" "hearts"
bead small round-11 "small petal" "small petals"
bead eye round-15 "small heart" "small hearts"
${END_BEADS}
carrier thread thread 0.15 "thread"
${END_FINDINGS}
start
${SURGEON}
${endSteps()}
motif
  pick stem*stems
  when m%2*mix=0
    pick petal*(petals+1)/2 heart
    pass petal[0]<
    pick petal*petals/2
    pass petal[(petals+1)/2-1]< -- "the petal beside the heart"
  when m%2*mix=1
    pick small*(petals+1)/2 eye
    pass small[0]<
    pick small*petals/2
    pass small[(petals+1)/2-1]< -- "the petal beside the heart"
end
  pick stem*stems
${endSteps()}
${HITCHES}
`,
  ring: {
    start: SURGEON,
    end: `
  pass first/stem[0..-1] -- "the ring closes; draw it tight"
  when mix=0
    pass first/petal[0]
${HITCHES}`,
  },
}
