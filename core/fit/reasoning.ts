import { fittedPart } from '../piece/piece'
import { showNumber } from '../units/length'
import { closureName, letOutMm } from '../wear/closure'
import { CUFF_GAP_MM, fitKindOf } from '../wear/kind'
import { wholeExtent } from './whole'
import { fitOf, mustPassMm, wideRingMm, type Fitted } from './reckon'

/** A piece of a formula: words, or a length that is shown in the unit of the person. */
export type Term = string | { readonly mm: number; readonly decimals: number }

/** One figure of the fit with the formula that it comes from, values put in. */
interface Reason {
  readonly id: 'wanted' | 'centre' | 'target' | 'planned' | 'width' | 'finished' | 'reach' | 'gauge'
  readonly label: string
  readonly terms: readonly Term[]
  readonly result: Term
}

const mm = (value: number, decimals = 1): Term => ({ mm: value, decimals })
const FINISHED = { round: 'Inside, closed', straight: 'Finished length', open: 'Band' } as const

/** How the fit of a piece is reckoned, step by step, so that every figure can be followed by hand. */
export function reasonsOf(piece: Fitted): Reason[] {
  const { fit } = piece
  const part = fittedPart(piece)
  const entry = fitKindOf(fit.kind)
  const extent = wholeExtent(piece, part)
  const r = fitOf(piece)
  const out: Reason[] = []
  const say = (id: Reason['id'], label: string, terms: readonly Term[], result: Term) =>
    out.push({ id, label, terms, result })
  const { closure } = fit
  const takes: Term[] = [
    ...(closure.lengthMm > 0 ? [' − ', mm(closure.lengthMm), ` for ${closureName(closure).toLowerCase()}`] : []),
    ...(closure.overlapMm > 0 ? [' + ', mm(closure.overlapMm), ' that overlap'] : []),
  ]
  const measure = entry.measureName.toLowerCase()

  if (entry.bend === 'open') {
    say(
      'wanted',
      'Band wanted',
      [
        `${measure} `,
        mm(fit.bodyMm),
        ` × ${showNumber(fit.cuffShare, 2)}; bent to a gap of `,
        mm(CUFF_GAP_MM.least, 0),
        ' to ',
        mm(CUFF_GAP_MM.most, 0),
      ],
      mm(r.wantedMm),
    )
  } else {
    const pass = mustPassMm(fit)
    const wide = wideRingMm(fit, extent.widthMm.nominal)
    const own: Term[] = [
      `${measure} `,
      mm(fit.bodyMm),
      ...(fit.easeMm === 0 ? [] : [fit.easeMm > 0 ? ' + room ' : ' less ', mm(Math.abs(fit.easeMm))]),
      ...(wide > 0 ? [' + half a size, ', mm(wide, 2), ', because the band is wider than ', mm(6, 0)] : []),
    ]
    const asks = pass / fit.wraps > fit.bodyMm + fit.easeMm + wide
    say(
      'wanted',
      entry.bend === 'round' ? 'Inside wanted' : entry.kind === 'earrings' ? 'Drop wanted' : 'Length wanted',
      asks
        ? [
            `nothing opens, so it must pass ${entry.passes!.name.toLowerCase()}: `,
            mm(pass),
            ...(fit.wraps > 1 ? [` ÷ ${fit.wraps} turns`] : []),
          ]
        : own,
      mm(r.wantedMm),
    )
  }
  if (entry.bend === 'round') {
    const centre = fit.wraps * (r.wantedMm + Math.PI * r.thicknessMm)
    say(
      'centre',
      'Through its middle',
      [
        ...(fit.wraps > 1 ? [`${fit.wraps} × (`] : []),
        mm(r.wantedMm),
        ` + π × `,
        mm(r.thicknessMm),
        ...(fit.wraps > 1 ? [')'] : []),
        ', because it bends about its middle',
      ],
      mm(centre),
    )
    say(
      'target',
      'Beadwork wanted',
      [
        mm(centre),
        ...takes,
        ...(letOutMm(closure) > 0 ? [' − a third of the ', mm(letOutMm(closure)), ' it can be let out'] : []),
      ],
      mm(r.targetMm),
    )
  } else if (entry.bend === 'straight') {
    say(
      'target',
      'Beadwork wanted',
      [
        mm(r.wantedMm),
        ...takes,
        ...(letOutMm(closure) > 0 ? [' − a third of the ', mm(letOutMm(closure)), ' it can be let out'] : []),
      ],
      mm(r.targetMm),
    )
  }
  say('planned', 'Beadwork planned', [extent.lengthFormula], mm(extent.lengthMm.nominal))
  say(
    'gauge',
    'Give or take',
    [
      extent.basis.kind === 'gauge'
        ? `${extent.basis.swatches === 1 ? 'one swatch' : `${extent.basis.swatches} swatches`} in this stitch, ` +
          `bead and thread; so ± ${showNumber(extent.basis.spread * 100, 1)} %`
        : `beads and hands differ until you measure: ± ${showNumber(extent.basis.spread * 100)} %`,
      ' of ',
      mm(extent.lengthMm.nominal),
      `; from `,
      mm(extent.lengthMm.least),
      ' to ',
      mm(extent.lengthMm.most),
    ],
    mm(extent.lengthMm.most - extent.lengthMm.nominal),
  )
  say('width', 'Width', [extent.widthFormula], mm(extent.widthMm.nominal))
  const gives: Term[] = [
    ...(closure.lengthMm > 0 ? [' + ', mm(closure.lengthMm)] : []),
    ...(closure.overlapMm > 0 ? [' − ', mm(closure.overlapMm)] : []),
  ]
  if (entry.bend === 'round') {
    const many = fit.wraps > 1
    say(
      'finished',
      FINISHED.round,
      [
        ...(many && gives.length > 0 ? ['('] : []),
        mm(r.beadworkMm.nominal),
        ...gives,
        ...(many && gives.length > 0 ? [')'] : []),
        ...(many ? [` ÷ ${fit.wraps}`] : []),
        ' − π × ',
        mm(r.thicknessMm),
      ],
      mm(r.finishedMm.nominal),
    )
  } else say('finished', FINISHED[entry.bend], [mm(r.beadworkMm.nominal), ...gives], mm(r.finishedMm.nominal))
  if (r.reachMm > 0) {
    say(
      'reach',
      'Let out',
      [
        'from ',
        mm(r.finishedMm.nominal),
        ' to ',
        mm(r.finishedMm.nominal + r.reachMm),
        closure.extenderMm > 0 ? ' along the chain' : ` in ${closure.openings} openings`,
      ],
      mm(r.atMm),
    )
  }
  return out
}

/** A reason as plain text in millimetres, for documents and tests. */
export function reasonLine({ label, terms, result }: Reason): string {
  const show = (t: Term) => (typeof t === 'string' ? t : `${showNumber(t.mm, t.decimals)} mm`)
  return `${label}: ${terms.map(show).join('')} = ${show(result)}`
}
