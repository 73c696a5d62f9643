/** About 50 ms of plain sums: what other work is measured against in the same run. */
export function loop(): number {
  let sum = 0
  for (let k = 0; k < 30_000_000; k++) sum = (sum + k * 7) % 1_000_003
  return sum
}

/** The shortest of several goes, ms. */
export function best(goes: number, work: () => unknown): number {
  let least = Infinity
  for (let k = 0; k < goes; k++) {
    const from = performance.now()
    work()
    least = Math.min(least, performance.now() - from)
  }
  return least
}
