import { describe, expect, it } from 'vitest'
import { beginPiece } from '../begin/begin'
import { MOTIFS } from '../pattern/motif'
import { canBecome } from '../technique/making'
import { TECHNIQUES } from '../technique/registry'
import { usualClosure } from '../wear/closure'
import { FIT_KINDS, fitKindOf } from '../wear/kind'
import { proofOf, rulesFor, wanting } from './proof'

/** A piece as a weaver begins it who changes nothing. */
function begun(
  technique: (typeof TECHNIQUES)[number],
  kind: (typeof FIT_KINDS)[number],
  motif: string,
  widthMm: number,
) {
  const { usualMm, eases, closures } = fitKindOf(kind)
  return beginPiece({
    ...{ kind, name: 'First', wearer: '', bodyMm: usualMm, easeMm: eases[1]?.mm ?? eases[0]?.mm ?? 0, widthMm },
    ...{ closure: usualClosure(closures[0]!), technique: technique.id, spec: technique.material.usualSpec },
    ...{ motif: motif as (typeof MOTIFS)[number]['id'], start: 'left' },
  })
}
const kindFor = (technique: (typeof TECHNIQUES)[number]) => FIT_KINDS.find((kind) => canBecome(technique, kind))

describe('a piece as it is begun', () => {
  it.each(TECHNIQUES.filter((t) => !t.holds && kindFor(t)).map((t) => [t.id, t] as const))(
    '%s: nothing looks wrong or is odd in it, whatever it begins with',
    (_, technique) => {
      const kind = kindFor(technique)!
      for (const motif of MOTIFS)
        for (const widthMm of technique.round ? [8, 10] : [10, 20]) {
          const proof = proofOf(begun(technique, kind, motif.id, widthMm))
          // How long it comes to is shown where it is begun: some things come in steps of their own.
          const wrong = wanting(proof).filter(({ group }) => group !== 'size')
          expect([motif.id, widthMm, wrong.map(({ says }) => says)]).toEqual([motif.id, widthMm, []])
        }
    },
  )
  it('is asked only what applies to it', () => {
    const ids = (id: string, kind: (typeof FIT_KINDS)[number]) =>
      rulesFor(
        begun(
          TECHNIQUES.find((t) => t.id === id)!,
          kind,
          'plain',
          10,
        ),
      ).map((rule) => rule.id)
    expect(ids('peyote', 'bracelet')).not.toContain('earring-heavy')
    expect(ids('peyote', 'earrings')).toContain('earring-heavy')
    expect(ids('braid-8', 'bracelet')).toContain('cap-narrow')
    expect(ids('peyote', 'bracelet')).not.toContain('cap-narrow')
    expect(ids('peyote-tube', 'bracelet')).toContain('round-open')
  })
})
