/** Run-length code of tray numbers: [count, number, count, number, …]. */
export type Runs = readonly number[]

export function runsOf(numbers: ArrayLike<number>): number[] {
  const runs: number[] = []
  for (let i = 0; i < numbers.length;) {
    const number = numbers[i]!
    let end = i + 1
    while (end < numbers.length && numbers[end] === number) end++
    runs.push(end - i, number)
    i = end
  }
  return runs
}

/** The same as counts and numbers, one for each run. */
export function runPairs(numbers: ArrayLike<number>): { readonly count: number; readonly number: number }[] {
  const flat = runsOf(numbers)
  return Array.from({ length: flat.length / 2 }, (_, k) => ({ count: flat[2 * k]!, number: flat[2 * k + 1]! }))
}

export function runsLength(runs: Runs): number {
  let length = 0
  for (let i = 0; i < runs.length; i += 2) length += runs[i]!
  return length
}

export function numbersOf(runs: Runs): Uint16Array {
  const out = new Uint16Array(runsLength(runs))
  let at = 0
  for (let i = 0; i < runs.length; i += 2) {
    const end = at + runs[i]!
    out.fill(runs[i + 1]!, at, end)
    at = end
  }
  return out
}
