import type { Finish, TrayBead } from '../../bead/bead'
import { requireSpec } from '../../bead/spec'
import { difference } from '../../colour/colour'
import { asSeen, underLamp, type Vision } from '../../colour/vision'
import type { Found, Rule } from '../found'
import { spotAt } from '../spots'
import { touches } from '../touching'
import { spotSays } from '../words'

/**
 * Differences of colour, ΔE00, under which beads that lie beside each other are hard to tell apart: about 1 is just
 * seen side by side on paper; on small round shiny things it takes several times as much (from memory). Where one
 * shines and the other does not, a third is enough.
 */
const HARD = 5
const BY_FINISH = 3

/** Finishes that are told apart at a glance. */
const SHINE: Record<Finish, number> = {
  opaque: 1,
  matte: 0,
  lustre: 1,
  metallic: 2,
  transparent: 3,
  lined: 3,
  rainbow: 1,
}

/** Sizes so different that nobody takes one for the other. */
const SIZE = 1.25

const sizeOf = ({ spec }: TrayBead): number => {
  const { d, l } = requireSpec(spec)
  return d * l
}
const apart = (a: TrayBead, b: TrayBead): boolean => {
  const [small, large] = [sizeOf(a), sizeOf(b)].toSorted((x, y) => x - y) as [number, number]
  return large > SIZE * SIZE * small || requireSpec(a.spec).shape !== requireSpec(b.spec).shape
}

/** Ways to look at two colours: with each of the three kinds of cones missing, in a warm lamp’s light. */
const WITHOUT = { 'red-weak': 'red', 'green-weak': 'green', 'blue-weak': 'blue' } as const satisfies Partial<
  Record<Vision, string>
>
const LOOKS: readonly { readonly says: string; see(hex: string): string }[] = [
  ...(['red-weak', 'green-weak', 'blue-weak'] as const).map((vision) => ({
    says: `for eyes without ${WITHOUT[vision]} cones`,
    see: (hex: string) => asSeen(hex, vision),
  })),
  { says: 'in the light of a warm lamp', see: underLamp },
]

/** Beads that lie beside each other and are hard to tell apart. */
export const neighbours: Rule = {
  id: 'neighbours-alike',
  group: 'telling',
  looksFor: 'Beads that lie beside each other and are hard to tell apart, for any eye and in any light.',
  alone: true,
  ofPart: (part, { tray }) =>
    touches(part).flatMap(({ a, b, count, at }): Found[] => {
      const [one, two] = [a, b].map((number) => tray.find((t) => t.number === number))
      if (!one || !two || apart(one, two)) return []
      const limit = SHINE[one.finish] === SHINE[two.finish] ? HARD : BY_FINISH
      const deltaOf = (see: (hex: string) => string) => difference(see(one.colour), see(two.colour))
      const plain = deltaOf((hex) => hex)
      // One and the same is another rule’s.
      if (plain === 0 && one.finish === two.finish) return []
      const hard = LOOKS.filter(({ see }) => deltaOf(see) < limit)
      if (plain >= limit && hard.length === 0) return []
      const spot = spotAt(part, at)
      const who = `${one.letter} ${one.name} and ${two.letter} ${two.name}`
      const first =
        `they lie beside each other ${count === 1 ? 'once' : `${count} times`}, first at ` +
        `${spotSays(part, spot).toLowerCase()}`
      return [
        plain < limit
          ? {
              weight: 'looks',
              says:
                `${who} are hard to tell apart (colour difference ${plain.toFixed(1)}, under ${limit}): ${first}. ` +
                'Take a lighter or darker bead for one of them, or another finish.',
              why: 'Laid out on the mat they are mixed up, and in the work the pattern is lost.',
              spots: [spot],
            }
          : {
              weight: 'note',
              says:
                `${who} are hard to tell apart ${hard.map((h) => h.says).join(' and ')}: ${first}. ` +
                'A difference in lightness or finish is seen by every eye.',
              why: 'About one man in twelve sees some of these colours alike; many bead in the evening.',
              spots: [spot],
            },
      ]
    }),
}
