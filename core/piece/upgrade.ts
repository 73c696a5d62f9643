/**
 * Carries an older piece over to the form of today, before it is checked. What cannot be understood is left for the
 * check to name.
 */
type Plain = Record<string, unknown>

const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Version 1 knew bracelets only and called their measure `wristMm`. */
function fitOfVersion1(fit: unknown): unknown {
  if (!isPlain(fit) || !('wristMm' in fit) || 'bodyMm' in fit) return fit
  const { wristMm, ...rest } = fit
  return { ...rest, bodyMm: wristMm }
}

export function upgradeBody(value: unknown): unknown {
  return isPlain(value) ? { ...value, fit: fitOfVersion1(value.fit) } : value
}

/** The same for a step that was kept from before. */
export function upgradeStep<T>(step: T): T {
  const { path } = step as { path?: unknown }
  return Array.isArray(path) && path[0] === 'fit' && path[1] === 'wristMm'
    ? { ...step, path: ['fit', 'bodyMm'] }
    : step
}
