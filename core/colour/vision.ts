import {
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  filterGrayscale,
  formatHex,
  parse,
  type Color,
} from 'culori'
import { hexOf, rgbOf } from './colour'
import { LINEAR, levelOf } from './spaces'

/**
 * Ways of seeing colour that a plan should be read in (simulation of Machado, Oliveira and Fernandes 2009, as the
 * library has it).
 */
export const VISIONS = ['all', 'red-weak', 'green-weak', 'blue-weak', 'grey'] as const

export type Vision = (typeof VISIONS)[number]

export const VISION_NAMES: Record<Vision, string> = {
  'all': 'all colours',
  'red-weak': 'without red cones (protanopia)',
  'green-weak': 'without green cones (deuteranopia)',
  'blue-weak': 'without blue cones (tritanopia)',
  'grey': 'in shades of grey',
}

const FILTERS: Record<Exclude<Vision, 'all'>, (colour: Color) => Color> = {
  'red-weak': filterDeficiencyProt(1),
  'green-weak': filterDeficiencyDeuter(1),
  'blue-weak': filterDeficiencyTrit(1),
  'grey': filterGrayscale(1) as (colour: Color) => Color,
}

/** An sRGB colour as it is seen. */
export function asSeen(hex: string, vision: Vision): string {
  if (vision === 'all') return hex
  const colour = parse(hex)
  return colour ? formatHex(FILTERS[vision](colour)) : hex
}

/**
 * Light of a warm lamp over daylight, in linear sRGB: a black body of 2700 K is about (1, 0.40, 0.10) beside white
 * (from memory); an eye in the room adapts about half of the way, so that the roots of these are seen.
 */
const WARM = { r: 1, g: Math.sqrt(0.4), b: Math.sqrt(0.1) } as const

/** An sRGB colour as it is seen in the light of a warm lamp. */
export function underLamp(hex: string): string {
  const { r, g, b } = rgbOf(hex)
  const lit = (level: number, share: number) => Math.round(levelOf(LINEAR[level]! * share))
  return hexOf({ r: lit(r, WARM.r), g: lit(g, WARM.g), b: lit(b, WARM.b) })
}
