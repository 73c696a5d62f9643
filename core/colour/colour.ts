import { converter, differenceCiede2000, parse, wcagContrast } from 'culori'

/** Thin over a kept library: conversion, CIEDE2000 difference and WCAG contrast of sRGB hex colours. */
export interface Rgb {
  readonly r: number
  readonly g: number
  readonly b: number
}

/** Channels 0 … 255 of `#rrggbb`. */
export function rgbOf(hex: string): Rgb {
  const n = Number.parseInt(hex.slice(1), 16)
  return { r: n >> 16, g: (n >> 8) & 255, b: n & 255 }
}

export const hexOf = ({ r, g, b }: Rgb): string =>
  '#' +
  [r, g, b]
    .map((v) =>
      Math.max(0, Math.min(255, Math.round(v)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')

const toLinear = converter('lrgb')

/** Relative luminance, 0 … 1 (IEC 61966-2-1; WCAG 2.2). */
export function luminance(hex: string): number {
  const { r, g, b } = toLinear(parse(hex))!
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

export const contrast = (a: string, b: string): number => wcagContrast(a, b)

const ciede2000 = differenceCiede2000()

/** Colour difference ΔE00. */
export const difference = (a: string, b: string): number => ciede2000(a, b)

/** Ink that reads best on a colour. */
export const inkOn = (hex: string): '#1a1613' | '#ffffff' =>
  contrast(hex, '#1a1613') >= contrast(hex, '#ffffff') ? '#1a1613' : '#ffffff'
