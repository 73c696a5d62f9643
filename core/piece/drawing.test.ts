import { expect, it } from 'vitest'
import { beginPiece } from '../begin/begin'
import { usualClosure } from '../wear/closure'
import { hangSideBySide } from './drawing'

it.each([
  ['fringe', 'round-11', true],
  ['dangles', 'ball-6-mm', true],
  ['peyote', 'cylinder-11', false],
  ['pins', 'round-8', false],
  ['stemmed-flowers', 'round-8', false],
  ['wire-frame', 'round-8', false],
  ['tile-ring', 'tile-5-mm', false],
])('lines of %s hang side by side, or follow each other along the work', (technique, spec, hang) => {
  const { parts } = beginPiece({
    ...{ name: '', wearer: '', kind: 'earrings', bodyMm: 40, easeMm: 0, widthMm: 20, technique, spec },
    ...{ closure: usualClosure('ear-wire'), motif: 'plain', start: 'left' },
  })
  const own = parts.filter((part) => part.technique === technique)
  expect(own.length).toBeGreaterThan(0)
  expect(own.map(hangSideBySide)).toEqual(own.map(() => hang))
})
