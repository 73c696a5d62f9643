/** The remainder that is never negative: n brought into 0 … m − 1, both whole and m > 0. */
export const modulo = (n: number, m: number): number => ((n % m) + m) % m
