/** A database that is starting, or whose last processes are still going. */
export function isComingUp(error: unknown): boolean {
  const code = (error as { code?: string } | null)?.code ?? ''
  return ['ECONNREFUSED', 'ECONNRESET', '57P03', '57P01', '57P02'].includes(code)
}

/** Database errors are known by code and constraint name, not by their text. */
export function isUniqueViolation(error: unknown, constraint: string): boolean {
  const e = error as { code?: string; constraint?: string } | null
  return e?.code === '23505' && e.constraint === constraint
}
