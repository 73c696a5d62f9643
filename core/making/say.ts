import type { TrayBead } from '../bead/bead'
import { discOf } from '../piece/nature'
import { columnsOf, techniqueOf } from '../piece/piece'
import { asides, rowTitle } from '../tally/words'
import { pauseWords } from './disc'
import type { Bite, Task } from './agenda'

/** What is said at the bench: for the ear, and for finding the place again. */

const nameOf = (number: number, tray: readonly TrayBead[]): string =>
  number === 0 ? 'empty' : (tray.find((b) => b.number === number)?.name ?? 'bead')

/** What a task is called: “Row 41”, “Join new thread”. */
export const titleOf = ({ words, chore }: Task): string => (words ? rowTitle(words) : chore.title)

/** A bite for the ear: “3 Fog”. */
export const spokenBite = ({ count, number }: Pick<Bite, 'count' | 'number'>, tray: readonly TrayBead[]): string =>
  `${count} ${nameOf(number, tray)}`

/** A row for the ear: “Row 41. 3 Fog, 1 Sedge. 4 in all. Long turn.” */
export function spokenTask({ words, chore }: Task, tray: readonly TrayBead[]): string {
  if (!words) return [`${chore.title}.`, ...chore.says].join(' ')
  if (words.told) {
    const steps = words.told.map(({ who, says, note, runs }) =>
      [who, runs.length > 0 ? runs.map((run) => spokenBite(run, tray)).join(', ') : says, note]
        .filter(Boolean)
        .join(', '),
    )
    return [`${rowTitle(words)}.`, ...steps.map((text) => `${text}.`)].join(' ')
  }
  const runs = words.runs.map((run) => spokenBite(run, tray)).join(', ')
  const all = words.runs.length > 1 ? ` ${words.beads} in all.` : ''
  return [`${rowTitle(words)}. ${runs}.${all}`, ...asides(words).map((text) => `${text}.`)].join(' ')
}

/** How the work lies when the hands stop at a bite, so that the place is found again. */
export function pauseOf({ part, row, words, chore }: Task, bites: readonly Bite[], bite: number): string {
  if (!words) return `next comes “${chore.title}”.`
  if (discOf(part)) return pauseWords(part, row * columnsOf(part) + bite)
  if (techniqueOf(part).anyOrder)
    return bite === 0
      ? `before ${rowTitle(words).toLowerCase()}; what is filled stays filled, in any order.`
      : `within ${rowTitle(words).toLowerCase()}: ${bites.slice(0, bite).reduce((sum, b) => sum + b.count, 0)} are on.`
  const [side, title] = [words.direction === '→' ? 'left' : 'right', rowTitle(words).toLowerCase()]
  return bite === 0
    ? `before ${title}; the needle comes out at the ${side}.`
    : `in ${title}: ${bites[bite]!.before} of its ${words.beads} beads are strung, from the ${side}.`
}
