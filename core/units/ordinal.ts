const ENDINGS = ['th', 'st', 'nd', 'rd'] as const

/** A whole number as a rank: 1st, 2nd, 3rd, 4th, 11th, 21st. */
export function ordinal(n: number): string {
  const teen = n % 100 > 10 && n % 100 < 14
  return `${n}${(teen ? undefined : ENDINGS[n % 10]) ?? 'th'}`
}
