import { RECIPE_LIMITS, type Ref, type Step } from './language'
import { sizesIn, type Row, type RowProgram } from './rows'
import type { RecipeHead, Unit } from './run'

/**
 * Work on wires, line by line: what each wire picks up, passes again and is wrapped round. Beads are named by their
 * place in the line, however they are strung; the compiler turns that into steps of the one language.
 */
export type Lacing =
  | {
      readonly do: 'pick'
      readonly by: string
      /** Places of the line, in the order in which they are strung. */
      readonly at: readonly number[]
      readonly hole?: 'a' | 'b'
      /** Strung against the way in which they lie. */
      readonly turned?: true
      readonly note?: string
    }
  | {
      readonly do: 'pass'
      readonly by: string
      readonly at: readonly number[]
      readonly way: 'on' | 'back'
      readonly hole?: 'a' | 'b'
      readonly note?: string
    }
  | {
      readonly do: 'wrap'
      readonly by: string
      readonly round: string
      readonly turns: number
      readonly note?: string
    }
  | { readonly do: 'say'; readonly text: string }

const noted = (note: string | undefined) => (note ? { note } : {})

/** Lines of beads with what is done in each, as a program. */
export function laced(
  rows: readonly Row[],
  lacings: readonly (readonly Lacing[])[],
  head: Pick<RecipeHead, 'carriers' | 'fixtures' | 'cut'> & { readonly unit: string },
): RowProgram {
  const { slots, spec, items } = sizesIn(rows)
  /** For each line: the place of what is strung first, second …; and which of these lie against their stringing. */
  const orders: number[][] = rows.map(() => [])
  const turned: Set<number>[] = rows.map(() => new Set())
  const units = rows.map((row, motif): Unit => {
    const order = orders[motif]!
    const steps = (lacings[motif] ?? []).flatMap((lacing): Step[] => {
      switch (lacing.do) {
        case 'pick': {
          const at = lacing.at.filter((place) => place < row.length && !order.includes(place))
          if (at.length === 0) return []
          order.push(...at)
          if (lacing.turned) for (const place of at) turned[motif]!.add(place)
          const picked = items(
            at.map((place) => row[place]!),
            'row',
          ).map((item) => ({ ...item, hole: lacing.hole ?? ('a' as const) }))
          return [{ do: 'pick', by: lacing.by, items: picked, ...noted(lacing.note) }]
        }
        case 'pass': {
          const refs = lacing.at.flatMap((place): Ref[] => {
            const at = order.indexOf(place)
            return at < 0 ? [] : [{ bead: 'row', of: 'this', at, hole: lacing.hole ?? 'a', way: lacing.way }]
          })
          return refs.length === 0 ? [] : [{ do: 'pass', by: lacing.by, refs, ...noted(lacing.note) }]
        }
        case 'wrap':
          return lacing.turns > 0
            ? [
                {
                  ...{ do: 'wrap', by: lacing.by, fixture: lacing.round },
                  turns: Math.min(RECIPE_LIMITS.turns, lacing.turns),
                  ...noted(lacing.note),
                },
              ]
            : []
        case 'say':
          return [{ do: 'say', text: lacing.text }]
      }
    })
    return { section: 'motif', motif, steps }
  })
  return {
    head: { slots, ...head },
    units,
    spec,
    placeOf: ({ motif, at }) => orders[motif]?.[at] ?? at,
    isTurned: ({ motif, at }) => turned[motif]?.has(orders[motif]?.[at] ?? -1) ?? false,
  }
}
