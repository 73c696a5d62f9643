import type { Fit } from '../piece/schema'
import type { Person } from '../shelf/shelf'
import { usualClosure, type Closure } from '../wear/closure'
import { canWind, ELASTIC_LESS_MM, fitKindOf, type FitKind } from '../wear/kind'

/**
 * The fit as another kind of piece: its measure and room are the usual ones, and the closure stays where that kind has
 * it.
 */
export function asKind(fit: Fit, kind: FitKind): Fit {
  if (kind === fit.kind) return fit
  const entry = fitKindOf(kind)
  const same = fitKindOf(fit.kind).measure === entry.measure
  const ease = entry.eases.find((e) => e.id === 'easy' || e.id === 'high') ?? entry.eases[0]
  return {
    ...fit,
    kind,
    bodyMm: same ? fit.bodyMm : entry.usualMm,
    easeMm: ease?.mm ?? 0,
    passMm: 0,
    wraps: canWind(kind) ? fit.wraps : 1,
    closure: entry.closures.includes(fit.closure.kind) ? fit.closure : usualClosure(entry.closures[0]!),
  }
}

/** The fit for a person: the measures and preferences that are kept of them, where they matter for this kind. */
export function forPerson(fit: Fit, { name, measures, ear, easeMm }: Person): Fit {
  const entry = fitKindOf(fit.kind)
  const body = measures[entry.measure]
  const pass = entry.passes ? measures[entry.passes.measure] : null
  const wrist = fit.kind === 'bracelet' && fit.closure.kind !== 'elastic'
  return {
    ...fit,
    wearer: name,
    bodyMm: body ?? fit.bodyMm,
    passMm: pass ?? 0,
    easeMm: wrist && easeMm !== null ? easeMm : fit.easeMm,
    closure: fit.kind === 'earrings' && ear !== '' && ear !== fit.closure.kind ? usualClosure(ear) : fit.closure,
  }
}

/**
 * The fit with another closure: elastic is made a little less than the wrist, all else with the room there was or the
 * usual.
 */
export function withClosure(fit: Fit, closure: Closure): Fit {
  if (closure.kind === fit.closure.kind) return { ...fit, closure }
  const usual = fitKindOf(fit.kind).eases.find((e) => e.id === 'easy')?.mm ?? fit.easeMm
  const easeMm =
    closure.kind === 'elastic' ? -ELASTIC_LESS_MM / 2 : fit.closure.kind === 'elastic' ? usual : fit.easeMm
  return { ...fit, closure, easeMm }
}
