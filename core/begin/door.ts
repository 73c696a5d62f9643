import type { TrayBead } from '../bead/bead'
import { DEFAULT_SPEC } from '../bead/spec'
import type { Part } from '../piece/piece'
import { toolsFor } from '../supply/tools'
import { byMaking, canBecome, type Making } from '../technique/making'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import type { Technique } from '../technique/technique'
import { usualClosure } from '../wear/closure'
import type { FitKind } from '../wear/kind'
import { beginPiece, sampleOf, sampleTray } from './begin'

/** A technique behind a door: what it looks like, is, and needs. */
export interface Member {
  readonly id: string
  readonly name: string
  readonly summary: string
  /** Tools that it needs beyond what lies on every table, in a few words. */
  readonly needs: string
  readonly sample: { readonly part: Part; readonly tray: readonly TrayBead[] }
}

/** A door of the workshop and what is behind it. */
export interface Door {
  readonly id: Making['id']
  readonly title: string
  readonly says: string
  readonly members: readonly Member[]
}

interface DoorWish {
  readonly kind: FitKind
  /** Techniques that were used, the latest first. */
  readonly used?: readonly string[]
  /** What is typed to find one. */
  readonly typed?: string
  /** Bead of the samples, where a technique takes it. */
  readonly spec: string
}

/** What lies on every table, or is told elsewhere. */
const COMMON = new Set([
  ...['Scissors', 'Bead mat', 'Wax', 'Wax or conditioner', 'Glue for thread and cord', 'File', 'Eye protection'],
  ...['Chain-nose pliers'],
])

const kept = new Map<string, Member>()

/** What holds the sample of a technique while its tools are asked for. */
const sampleHolder = beginPiece({
  ...{ kind: 'bracelet', name: '', wearer: '', bodyMm: 120, easeMm: 0, widthMm: 10 },
  ...{ closure: usualClosure('toggle'), technique: 'peyote', spec: DEFAULT_SPEC, motif: 'plain', start: 'left' },
})

/** Tools that a small piece of a technique needs, in a few words. */
const needsOf = (sample: Member['sample']): string =>
  toolsFor({ ...sampleHolder, tray: [...sample.tray], parts: [sample.part] })
    .filter((tool) => !COMMON.has(tool))
    .slice(0, 3)
    .map((tool) => tool.toLowerCase())
    .join(', ')

/** Whether everything that is typed stands somewhere in what is said of a technique. */
const isMeant = (typed: string, texts: readonly string[]): boolean => {
  const all = texts.join(' ').toLowerCase()
  return typed
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .every((word) => all.includes(word))
}

/** Places of things in a list of those lately used; behind all of them what was never used. */
const rankIn = (used: readonly string[], id: string): number => {
  const at = used.indexOf(id)
  return at < 0 ? used.length : at
}

/**
 * Doors by how things are made, with the techniques that can become what is wanted: lately used ones first, and doors
 * by their first; of what is typed only what is meant. A door without members stays shut and is left out.
 */
export function doorsFor({ kind, used = [], typed = '', spec }: DoorWish): Door[] {
  const able = TECHNIQUES.filter((technique) => canBecome(technique, kind))
  return byMaking(able, ({ id }) => id)
    .map(({ making, things }): Door => ({
      ...making,
      members: things
        .map((t) => memberOf(t, spec))
        .filter((m) => isMeant(typed, [m.name, m.summary, making.title, m.needs]))
        .toSorted((a, b) => rankIn(used, a.id) - rankIn(used, b.id)),
    }))
    .filter(({ members }) => members.length > 0)
    .toSorted((a, b) => rankIn(used, a.members[0]!.id) - rankIn(used, b.members[0]!.id))
}

/**
 * A technique with a small piece of it: beads for what is beaded and cords for what is braided plain. The same
 * object each time, so that what draws it need not draw it anew.
 */
export function memberOf(technique: Pick<Technique, 'id' | 'name' | 'summary' | 'material'>, wanted: string): Member {
  const { id, name, summary, material } = technique
  // Where beads play different parts, a sample shows the sizes that it is mostly made of.
  const spec = !requireTechnique(id).first && material.takes(wanted) ? wanted : material.usualSpec
  const key = `${id} ${spec}`
  const there = kept.get(key)
  if (there) return there
  const sample = { part: sampleOf(id, spec), tray: sampleTray(id, spec) }
  const member = { id, name, summary, needs: needsOf(sample), sample }
  kept.set(key, member)
  return member
}
