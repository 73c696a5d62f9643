import { describe, expect, it } from 'vitest'
import { DEFAULT_SPEC } from '../bead/spec'
import { canBecome } from '../technique/making'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { FIT_KINDS } from '../wear/kind'
import { doorsFor, memberOf } from './door'

const ids = (wish: Omit<Parameters<typeof doorsFor>[0], 'spec'>) =>
  doorsFor({ ...wish, spec: DEFAULT_SPEC }).map((door) => [door.id, door.members.map((m) => m.id)] as const)

describe('doors of the workshop', () => {
  it('open on everything that can become what is wanted, once, and on nothing else', () => {
    for (const kind of FIT_KINDS) {
      const offered = ids({ kind }).flatMap(([, members]) => members)
      expect(offered.toSorted()).toEqual(
        TECHNIQUES.filter((t) => canBecome(t, kind))
          .map((t) => t.id)
          .toSorted(),
      )
    }
    expect(ids({ kind: 'cuff' }).map(([id]) => id)).toEqual(['flat', 'held'])
  })
  it('show lately used ones first, and their doors', () => {
    const [first, second] = ids({ kind: 'bracelet', used: ['pins', 'loom', 'cord-ladder'] })
    expect(first![0]).toBe('held')
    expect(first![1].slice(0, 2)).toEqual(['pins', 'cord-ladder'])
    expect(second![0]).toBe('flat')
    expect(second![1][0]).toBe('loom')
  })
  it('are found by typing: a name, what it is, or what it needs', () => {
    const found = (typed: string) => ids({ kind: 'bracelet', typed }).flatMap(([, members]) => members)
    expect(found('elastic')).toEqual(['pins'])
    expect(found('  Ladder CORD')).toContain('cord-ladder')
    expect(found('loom')).toContain('loom')
    expect(found('disc').length).toBeGreaterThan(3)
    expect(found('no such thing')).toEqual([])
  })
  it('open again on the same samples, whatever is typed: what draws them draws each once', () => {
    const members = (typed: string, spec = DEFAULT_SPEC) =>
      doorsFor({ kind: 'bracelet', typed, spec }).flatMap((door) => door.members)
    const loom = members('').find((m) => m.id === 'loom')!
    expect(members('loom').find((m) => m.id === 'loom')).toBe(loom)
    expect(members('loom', 'round-8').find((m) => m.id === 'loom')!.sample.part.spec).toBe('round-8')
  })
  it('say what is needed beyond what lies on every table', () => {
    const needsOf = (id: string) => memberOf(requireTechnique(id), DEFAULT_SPEC).needs
    expect(needsOf('peyote')).toBe('beading needle')
    expect(needsOf('loom')).toContain('bead loom')
    expect(needsOf('braid-8')).toContain('braiding disc')
    expect(needsOf('cord-ladder')).toContain('board with clips')
    // A finding is bought, not made: it is behind no door.
    for (const technique of TECHNIQUES.filter((t) => !t.holds))
      expect(needsOf(technique.id), technique.id).not.toBe('')
  })
})
