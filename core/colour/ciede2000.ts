const TO_DEGREES = 180 / Math.PI
const TWENTY_FIVE_7 = 25 ** 7

const hueOf = (a: number, b: number): number => {
  if (a === 0 && b === 0) return 0
  const h = Math.atan2(b, a) * TO_DEGREES
  return h < 0 ? h + 360 : h
}

/**
 * Colour difference ΔE00 with all weights 1, on plain numbers for long loops (Sharma, Wu, Dalal 2005, The CIEDE2000
 * color-difference formula: implementation notes, supplementary test data, and mathematical observations).
 */
export function deltaE00(l1: number, a1: number, b1: number, l2: number, a2: number, b2: number): number {
  const meanC = (Math.sqrt(a1 * a1 + b1 * b1) + Math.sqrt(a2 * a2 + b2 * b2)) / 2
  const c7 = meanC ** 7
  const g = 1.5 - 0.5 * Math.sqrt(c7 / (c7 + TWENTY_FIVE_7))
  const p1 = g * a1
  const p2 = g * a2
  const chroma1 = Math.sqrt(p1 * p1 + b1 * b1)
  const chroma2 = Math.sqrt(p2 * p2 + b2 * b2)
  const h1 = hueOf(p1, b1)
  const h2 = hueOf(p2, b2)
  const grey = chroma1 * chroma2 === 0
  let dh = grey ? 0 : h2 - h1
  if (dh > 180) dh -= 360
  else if (dh < -180) dh += 360
  const dL = l2 - l1
  const dC = chroma2 - chroma1
  const dH = 2 * Math.sqrt(chroma1 * chroma2) * Math.sin(dh / 2 / TO_DEGREES)
  const meanL = (l1 + l2) / 2
  const mean = (chroma1 + chroma2) / 2
  let h = h1 + h2
  if (!grey) h = Math.abs(h1 - h2) <= 180 ? h / 2 : h < 360 ? (h + 360) / 2 : (h - 360) / 2
  const cos = (degrees: number) => Math.cos(degrees / TO_DEGREES)
  const t = 1 - 0.17 * cos(h - 30) + 0.24 * cos(2 * h) + 0.32 * cos(3 * h + 6) - 0.2 * cos(4 * h - 63)
  const m7 = mean ** 7
  const turn = 60 * Math.exp(-(((h - 275) / 25) ** 2))
  const rt = -2 * Math.sqrt(m7 / (m7 + TWENTY_FIVE_7)) * Math.sin(turn / TO_DEGREES)
  const off = (meanL - 50) ** 2
  const sl = 1 + (0.015 * off) / Math.sqrt(20 + off)
  const sc = 1 + 0.045 * mean
  const sh = 1 + 0.015 * mean * t
  const x = dL / sl
  const y = dC / sc
  const z = dH / sh
  return Math.sqrt(Math.max(0, x * x + y * y + z * z + rt * y * z))
}
