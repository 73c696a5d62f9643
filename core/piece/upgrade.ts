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

/** Before version 3 no part hung on another. */
const partOfVersion2 = (part: unknown): unknown => (isPlain(part) && !('on' in part) ? { ...part, on: null } : part)

export function upgradeBody(value: unknown): unknown {
  if (!isPlain(value)) return value
  const { fit, parts } = value
  return {
    ...value,
    ...('fit' in value ? { fit: fitOfVersion1(fit) } : {}),
    ...(Array.isArray(parts) ? { parts: parts.map(partOfVersion2) } : {}),
  }
}

/** The same for a step that was kept from before. */
export function upgradeStep<T>(step: T): T {
  const { type, path, value } = step as { type?: unknown; path?: unknown; value?: unknown }
  if (type === 'part' && isPlain(value) && !('on' in value)) return { ...step, value: partOfVersion2(value) }
  return Array.isArray(path) && path[0] === 'fit' && path[1] === 'wristMm'
    ? { ...step, path: ['fit', 'bodyMm'] }
    : step
}
