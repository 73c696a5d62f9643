import { rowsOf, sectionStart, techniqueOf, workOf, type Part } from '../piece/piece'
import type { Finding } from './found'

/** Where findings of a part lie in its lines and rows, for the quiet marks beside them. */

const about = (part: Part, findings: readonly Finding[]): readonly Finding[] =>
  findings.filter((one) => one.part === part.id && one.spots.length > 0)

/** Lines of the whole part that want a look, in every copy of the repeat; ascending. */
export function markedLines(part: Part, findings: readonly Finding[]): number[] {
  const out = new Set<number>()
  for (const { spots } of about(part, findings))
    for (const { section, r } of spots)
      for (let copy = 0; copy < (section === 'repeat' ? part.times : 1); copy++)
        out.add(sectionStart(part, section, copy) + r)
  return [...out].filter((r) => r < rowsOf(part)).sort((a, b) => a - b)
}

/** Working rows that want a look, by their index, with the first thing that is said of each. */
export function markedRows(part: Part, findings: readonly Finding[]): ReadonlyMap<number, Finding> {
  const out = new Map<number, Finding>()
  const work = workOf(part)
  const { order } = techniqueOf(part)
  for (const one of about(part, findings))
    for (const { section, r, c } of one.spots)
      for (let copy = 0; copy < (section === 'repeat' ? part.times : 1); copy++) {
        const row = sectionStart(part, section, copy) + r
        if (row >= rowsOf(part)) continue
        const i = order.rowOf({ c: c ?? 0, r: row }, work)
        if (!out.has(i)) out.set(i, one)
      }
  return out
}
