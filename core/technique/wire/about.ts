/**
 * A list made so long about its middle, if it is its own mirror, so that it stays that; at its end otherwise, where it
 * goes on as it began.
 */
export function resizedAbout(list: readonly number[], length: number): number[] {
  if (length === list.length || list.length === 0) return [...list]
  const mirrored = list.every((n, k) => n === list[list.length - 1 - k])
  if (!mirrored) return Array.from({ length }, (_, k) => list[k % list.length]!)
  const half = list.slice(0, Math.ceil(list.length / 2))
  const first = Array.from({ length: Math.ceil(length / 2) }, (_, k) => half[k] ?? half.at(-1)!)
  const rest = length % 2 === 0 ? first : first.slice(0, -1)
  return [...first, ...rest.toReversed()]
}
