import { hexOf } from '../colour/colour'
import { levelOf, linearOf, okLab } from '../colour/spaces'

/** OKLab of sampled cells; a cell without a colour keeps L = −1. */
export function toOkLab(cells: Float32Array): Float32Array {
  const out = new Float32Array(cells.length)
  for (let at = 0; at < cells.length; at += 3) {
    if (cells[at]! < 0) {
      out[at] = -1
      continue
    }
    okLab(cells[at]!, cells[at + 1]!, cells[at + 2]!, out, at)
  }
  return out
}

/** More cells than this are not asked when colours are chosen: every n-th stands for them. */
const MOST_ASKED = 20_000

/**
 * Boxes of colours halved at the widest axis of the most spread one, until there are k (median cut, Heckbert 1982).
 */
function medianCut(lab: Float32Array, asked: Int32Array, k: number): Float64Array {
  const boxes: Int32Array[] = [asked]
  const spread = (box: Int32Array): { axis: number; worth: number } => {
    let [axis, most] = [0, -1]
    for (let i = 0; i < 3; i++) {
      let [low, high] = [Infinity, -Infinity]
      for (const at of box) {
        const v = lab[at + i]!
        if (v < low) low = v
        if (v > high) high = v
      }
      if (high - low > most) {
        most = high - low
        axis = i
      }
    }
    return { axis, worth: most * Math.sqrt(box.length) }
  }
  while (boxes.length < k) {
    let [best, axis, worth] = [-1, 0, 1e-9]
    boxes.forEach((box, i) => {
      const s = spread(box)
      if (box.length > 1 && s.worth > worth) {
        best = i
        axis = s.axis
        worth = s.worth
      }
    })
    if (best < 0) break
    const sorted = boxes[best]!.toSorted((a, b) => lab[a + axis]! - lab[b + axis]!)
    const half = sorted.length >> 1
    boxes.splice(best, 1, sorted.slice(0, half), sorted.slice(half))
  }
  const centres = new Float64Array(boxes.length * 3)
  boxes.forEach((box, i) => {
    for (const at of box) for (let j = 0; j < 3; j++) centres[3 * i + j]! += lab[at + j]! / box.length
  })
  return centres
}

function nearest(centres: Float64Array, L: number, a: number, b: number): number {
  let [best, least] = [0, Infinity]
  for (let i = 0; i < centres.length; i += 3) {
    const far = (centres[i]! - L) ** 2 + (centres[i + 1]! - a) ** 2 + (centres[i + 2]! - b) ** 2
    if (far < least) {
      least = far
      best = i
    }
  }
  return best
}

/**
 * k colours that stand for those of a picture best: median cut, then k-means in OKLab. Fewer come back where the
 * picture has fewer. Colours as `#rrggbb`, the commonest first.
 */
export function chooseColours(lab: Float32Array, k: number, rounds = 8): string[] {
  const all: number[] = []
  const step = 3 * Math.max(1, Math.ceil(lab.length / 3 / MOST_ASKED))
  for (let at = 0; at < lab.length; at += step) if (lab[at]! >= 0) all.push(at)
  if (all.length === 0) return []
  const asked = Int32Array.from(all)
  const centres = medianCut(lab, asked, k)
  const sums = new Float64Array(centres.length)
  const counts = new Float64Array(centres.length / 3)
  for (let round = 0; round < rounds; round++) {
    sums.fill(0)
    counts.fill(0)
    for (const at of asked) {
      const i = nearest(centres, lab[at]!, lab[at + 1]!, lab[at + 2]!)
      counts[i / 3]!++
      for (let j = 0; j < 3; j++) sums[i + j]! += lab[at + j]!
    }
    for (let i = 0; i < centres.length; i += 3)
      if (counts[i / 3]! > 0) for (let j = 0; j < 3; j++) centres[i + j] = sums[i + j]! / counts[i / 3]!
  }
  const order = Array.from(counts, (count, i) => ({ count, i }))
    .filter((o) => o.count > 0)
    .sort((x, y) => y.count - x.count)
  const hexes = order.map(({ i }) => {
    const [r, g, b] = linearOf(centres[3 * i]!, centres[3 * i + 1]!, centres[3 * i + 2]!)
    return hexOf({
      r: levelOf(Math.max(0, Math.min(1, r))),
      g: levelOf(Math.max(0, Math.min(1, g))),
      b: levelOf(Math.max(0, Math.min(1, b))),
    })
  })
  return [...new Set(hexes)]
}
