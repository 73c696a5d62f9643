import { requireSpec } from '../bead/spec'
import { requireTechnique } from '../technique/registry'
import type { Settings } from '../technique/technique'
import { LIMITS } from './schema'

/** Columns that come nearest to a width, of a count that the stitch allows. */
export function columnsForWidth(technique: string, settings: Settings, spec: string, widthMm: number): number {
  const t = requireTechnique(technique)
  return Math.min(
    LIMITS.columns - 1,
    t.growth.nearestColumns(t.growth.columnsFor(widthMm, { bead: requireSpec(spec), settings }), settings),
  )
}

/** Of what a person usually does, that which a stitch lets one choose. */
export function habitOf(id: string, habit: Settings): Settings {
  const { fields } = requireTechnique(id)
  return Object.fromEntries(Object.entries(habit).filter(([key]) => fields.some((f) => f.key === key)))
}
