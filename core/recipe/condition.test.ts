import { describe, expect, it } from 'vitest'
import { conditionWords } from './condition'
import { SOME_MOTIFS } from './edit'

const recipe = {
  params: [
    { id: 'ends', label: 'Ends', least: 0, most: 3, usual: 0 },
    { id: 'mix', label: 'Flowers', least: 0, most: 1, usual: 0 },
  ],
}

describe('a condition', () => {
  it.each(SOME_MOTIFS.map((one) => [one.if, one.says]))('%s is said as it is offered', (condition, says) => {
    expect(conditionWords(condition, recipe)).toBe(says)
  })
  it.each([
    ['0=m', 'in the first motif only'],
    ['m%3=1', 'in every third motif, from the second'],
    ['m%2', 'in every second motif, from the second'],
    ['m%3', 'everywhere but in every third motif, from the first'],
    ['m<2', 'in the first 2 motifs'],
    ['m<1', 'in the first motif only'],
    ['m>1', 'from the third motif on'],
    ['i%2=0', 'in every second turn, from the first'],
    ['i=0', 'in the first turn only'],
    ['ends=1', 'where “Ends” is 1'],
    ['2<ends', 'where “Ends” is over 2'],
    ['ends', 'where “Ends” is not 0'],
    ['m%2*mix=0', 'everywhere but in every second motif, from the second, where “Flowers” is not 0'],
    ['m%2*mix=1', 'in every second motif, from the second, where “Flowers” is not 0'],
    ['(ends=2)*(m=n-1)', 'in the last motif only, where “Ends” is 2'],
    ['(ends=2)*(mix=1)', 'where “Ends” is 2 and “Flowers” is 1'],
    ['m<ends+1', 'where the motif, from 0, is under “Ends” + 1'],
    ['n>3', 'where the number of motifs is over 3'],
    ['i<(ends-1)*2', 'where the turn i is under (“Ends” − 1) × 2'],
    ['-ends<1', 'where −“Ends” is under 1'],
    ['m=n-2', 'where the motif, from 0, is the number of motifs − 2'],
    [1, 'where 1 is not 0'],
    ['m=', 'where m='],
  ])('%s is said: %s', (condition, says) => {
    expect(conditionWords(condition, recipe)).toBe(says)
  })
})
