import type { Choice } from '#core/fit/choices'
import { plainEndsMm } from '#core/fit/extent'
import { requireSpec } from '#core/bead/spec'
import { techniqueOf, type Part, type Piece } from '#core/piece/piece'
import { closureName, sameClosure } from '#core/wear/closure'

type ShowLength = (mm: number, decimals?: number) => string

/** What a choice of fit gives way in, in words. */
export function choiceWords(
  choice: Choice,
  { piece, part }: { readonly piece: Piece; readonly part: Part },
  length: ShowLength,
): string {
  if (choice.says !== undefined) return choice.says
  const said: string[] = []
  const rowWord = (n: number) => `${techniqueOf(part).words.line}${n === 1 ? '' : 's'}`
  const ends = choice.startRows + choice.endRows
  if (ends < 0 && choice.whole) said.push('whole cycles, none broken off')
  else if (ends !== 0)
    said.push(`${Math.abs(ends)} plain ${rowWord(Math.abs(ends))} ${ends > 0 ? 'more' : 'fewer'} at the ends`)
  if (choice.plainMm !== plainEndsMm(part) / 2) said.push(`${length(choice.plainMm, 1)} plain at each end`)
  if (choice.cycleRows > 0) said.push(`${choice.cycleRows} ${rowWord(choice.cycleRows)} of the next`)
  for (const { key, counts } of techniqueOf(part).tunes ?? [])
    if (choice.settings && choice.settings[key] !== part.settings[key]) said.push(`${choice.settings[key]} ${counts}`)
  const own = piece.fit.closure
  if (choice.closure.extenderMm !== own.extenderMm) said.push(`a chain of ${length(choice.closure.extenderMm)}`)
  else if (!sameClosure(choice.closure, own))
    said.push(`${closureName(choice.closure).toLowerCase()}, ${length(choice.closure.lengthMm)}`)
  if (choice.spec !== part.spec) said.push(`in ${requireSpec(choice.spec).name}`)
  return said.join(', ') || 'whole repeats'
}

/** How far a measure is from what is wanted, in words. */
export const offWords = (mm: number, length: ShowLength): string =>
  Math.abs(mm) < 0.5 ? 'just right' : `${length(Math.abs(mm), 1)} ${mm > 0 ? 'over' : 'short'}`
