/** Database errors are known by code and constraint name, not by their text. */
export function isUniqueViolation(error: unknown, constraint: string): boolean {
  const e = error as { code?: string; constraint?: string } | null
  return e?.code === '23505' && e.constraint === constraint
}
