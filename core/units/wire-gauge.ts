/**
 * Diameter of round wire by its American gauge number, mm: d = 0.127 × 92^((36 − g) / 39) (ASTM B258). Larger number,
 * thinner wire.
 * `gauge` is a whole number from 0 to 40.
 */
export function wireDiameterMm(gauge: number): number {
  if (!Number.isInteger(gauge) || gauge < 0 || gauge > 40)
    throw new RangeError(`wire gauges run from 0 to 40 in whole numbers, not ${gauge}`)
  return 0.127 * 92 ** ((36 - gauge) / 39)
}

/** The whole gauge number whose wire is nearest to a diameter in mm. */
export function nearestWireGauge(diameterMm: number): number {
  const exact = 36 - (39 * Math.log(diameterMm / 0.127)) / Math.log(92)
  return Math.min(40, Math.max(0, Math.round(exact)))
}
