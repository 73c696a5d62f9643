/** A bank card, mm (ISO/IEC 7810, ID-1): the thing in every purse that a screen can be measured with. */
export const CARD = { widthMm: 85.6, heightMm: 53.98 } as const

/** Pixels a millimetre where nobody measured: 96 to the inch, as the web has it. */
export const PLAIN_PX_PER_MM = 96 / 25.4
