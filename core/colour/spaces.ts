/** Conversions on plain numbers for long loops; the library in colour.ts is their twin in the tests. */

/** Linear light of the 256 sRGB levels (IEC 61966-2-1). */
export const LINEAR = Float64Array.from({ length: 256 }, (_, v) => {
  const s = v / 255
  return s <= 0.04045 ? s / 12.92 : ((s + 0.055) / 1.055) ** 2.4
})

/** sRGB level 0 … 255 (not rounded) of linear light. */
export const levelOf = (linear: number): number =>
  255 * (linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055)

/** OKLab of linear sRGB, written to `out` at `at` (Ottosson 2020). */
export function okLab(r: number, g: number, b: number, out: Float32Array | Float64Array, at: number): void {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b)
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b)
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b)
  out[at] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s
  out[at + 1] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s
  out[at + 2] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s
}

/** Linear sRGB of OKLab. */
export function linearOf(L: number, a: number, b: number): readonly [number, number, number] {
  const l = (L + 0.3963377774 * a + 0.2158037573 * b) ** 3
  const m = (L - 0.1055613458 * a - 0.0638541728 * b) ** 3
  const s = (L - 0.0894841775 * a - 1.291485548 * b) ** 3
  return [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ]
}

const f = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116)

/** CIE L*a*b* of linear sRGB, white D65 (IEC 61966-2-1 primaries), written to `out` at `at`. */
export function cieLab(r: number, g: number, b: number, out: Float32Array | Float64Array, at: number): void {
  const x = f((0.4123907993 * r + 0.3575843394 * g + 0.1804807884 * b) / 0.9504559271)
  const y = f(0.2126390059 * r + 0.7151686788 * g + 0.0721923154 * b)
  const z = f((0.0193308187 * r + 0.1191947798 * g + 0.9505321522 * b) / 1.0890577508)
  out[at] = 116 * y - 16
  out[at + 1] = 500 * (x - y)
  out[at + 2] = 200 * (y - z)
}
