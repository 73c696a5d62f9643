import {
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  filterGrayscale,
  formatHex,
  parse,
  type Color,
} from 'culori'

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
