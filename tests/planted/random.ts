/** Chance that comes again: a seed gives the same numbers everywhere (xorshift, 32 bits). */
export class Chance {
  private state: number

  constructor(seed: number) {
    this.state = (Math.imul(seed + 1, 0x9e3779b1) ^ 0x5bd1e995) >>> 0 || 1
    for (let k = 0; k < 8; k++) this.next()
  }

  /** From 0 on, under 1. */
  next(): number {
    let s = this.state
    s ^= s << 13
    s ^= s >>> 17
    s ^= s << 5
    this.state = s >>> 0
    return this.state / 4294967296
  }

  /** A whole number from `least` to `most`. */
  whole(least: number, most: number): number {
    return least + Math.floor(this.next() * (most - least + 1))
  }

  of<T>(list: readonly T[]): T {
    return list[this.whole(0, list.length - 1)]!
  }

  is(share: number): boolean {
    return this.next() < share
  }
}
