/** An edge of a graph: two nodes, and how far apart they want to be, mm. */
export type Edge = readonly [a: number, b: number, mm: number]

/** Shortest ways between all nodes, row by row; nodes that nothing joins are as far apart as the furthest. */
function shortestWays(count: number, edges: readonly Edge[]): Float64Array {
  const starts = new Int32Array(count + 1)
  for (const [a, b] of edges) {
    starts[a + 1]!++
    starts[b + 1]!++
  }
  for (let i = 0; i < count; i++) starts[i + 1]! += starts[i]!
  const next = starts.slice()
  const to = new Int32Array(2 * edges.length)
  const mm = new Float64Array(2 * edges.length)
  for (const [a, b, w] of edges) {
    to[next[a]!] = b
    mm[next[a]!++] = w
    to[next[b]!] = a
    mm[next[b]!++] = w
  }
  const D = new Float64Array(count * count).fill(Infinity)
  // Label-correcting search from each node, each at most once in the queue: the graph is sparse and small.
  const queue = new Int32Array(count + 1)
  const waits = new Uint8Array(count)
  let far = 0
  for (let s = 0; s < count; s++) {
    const row = s * count
    D[row + s] = 0
    let head = 0
    let tail = 1
    queue[0] = s
    waits[s] = 1
    while (head !== tail) {
      const a = queue[head]!
      head = (head + 1) % (count + 1)
      waits[a] = 0
      const here = D[row + a]!
      for (let k = starts[a]!; k < starts[a + 1]!; k++) {
        const b = to[k]!
        const sum = here + mm[k]!
        if (sum >= D[row + b]! - 1e-12) continue
        D[row + b] = sum
        if (waits[b] === 1) continue
        waits[b] = 1
        queue[tail] = b
        tail = (tail + 1) % (count + 1)
      }
    }
    for (let j = 0; j < count; j++) if (D[row + j]! !== Infinity && D[row + j]! > far) far = D[row + j]!
  }
  for (let i = 0; i < D.length; i++) if (D[i] === Infinity) D[i] = far
  return D
}

const POWER_ROUNDS = 60
/** Nearer than this no two nodes are asked to lie, mm: weights stay finite. */
const LEAST_MM = 0.05

/** The two main axes of the distances: classical scaling by power iteration from fixed numbers. */
function mainAxes(count: number, D: Float64Array): { x: Float64Array; y: Float64Array } {
  const B = new Float64Array(count * count)
  const mean = new Float64Array(count)
  let all = 0
  for (let i = 0; i < count; i++) {
    let sum = 0
    for (let j = 0; j < count; j++) sum += D[i * count + j]! ** 2
    mean[i] = sum / count
    all += mean[i]! / count
  }
  for (let i = 0; i < count; i++)
    for (let j = 0; j < count; j++) B[i * count + j] = -0.5 * (D[i * count + j]! ** 2 - mean[i]! - mean[j]! + all)
  const axis = (seed: number, slope: number, against?: Float64Array): Float64Array => {
    let v = Float64Array.from({ length: count }, (_, i) => Math.sin(seed * (i + 1)) + (i / count - 0.5) * slope)
    let w = new Float64Array(count)
    let value = 0
    const square = against?.reduce((sum, a) => sum + a * a, 0) ?? 0
    for (let k = 0; k < POWER_ROUNDS; k++) {
      if (against && square > 0) {
        let dot = 0
        for (let i = 0; i < count; i++) dot += v[i]! * against[i]!
        for (let i = 0; i < count; i++) v[i]! -= (dot / square) * against[i]!
      }
      let sum = 0
      for (let i = 0; i < count; i++) {
        let s = 0
        for (let j = 0; j < count; j++) s += B[i * count + j]! * v[j]!
        w[i] = s
        sum += s * s
      }
      value = Math.sqrt(sum)
      if (value < 1e-12) return v.fill(0)
      for (let i = 0; i < count; i++) w[i]! /= value
      ;[v, w] = [w, v]
    }
    const scale = Math.sqrt(Math.max(value, 0))
    for (let i = 0; i < count; i++) v[i]! *= scale
    return v
  }
  const x = axis(0.7, 3)
  return { x, y: axis(1.9, 0, x) }
}

/**
 * A first picture from topology alone: ways along beads and thread as wanted distances, the two main axes of those
 * (classical scaling), turned and bent as `hint` says, then so many rounds of stress majorisation. Deterministic.
 */
export function embed(
  count: number,
  edges: readonly Edge[],
  rounds: number,
  hint?: (x: Float64Array, y: Float64Array) => void,
): { readonly x: Float64Array; readonly y: Float64Array } {
  const D = shortestWays(count, edges)
  let { x, y } = mainAxes(count, D)
  hint?.(x, y)
  let nx: Float64Array = new Float64Array(count)
  let ny: Float64Array = new Float64Array(count)
  // Majorisation with weights 1 / d²: near things count, far ones only keep it spread.
  for (let k = 0; k < rounds; k++) {
    for (let i = 0; i < count; i++) {
      const [xi, yi] = [x[i]!, y[i]!]
      const row = i * count
      let sx = 0
      let sy = 0
      let sw = 0
      for (let j = 0; j < count; j++) {
        if (i === j) continue
        const d = Math.max(LEAST_MM, D[row + j]!)
        const w = 1 / (d * d)
        const dx = xi - x[j]!
        const dy = yi - y[j]!
        const pull = d / Math.max(1e-9, Math.sqrt(dx * dx + dy * dy))
        sx += w * (x[j]! + dx * pull)
        sy += w * (y[j]! + dy * pull)
        sw += w
      }
      nx[i] = sw > 0 ? sx / sw : xi
      ny[i] = sw > 0 ? sy / sw : yi
    }
    ;[x, nx] = [nx, x]
    ;[y, ny] = [ny, y]
  }
  return { x, y }
}
