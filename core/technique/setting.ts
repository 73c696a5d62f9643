/** Settings of a technique's own, as its schema reads them. */
export type Settings = Readonly<Record<string, string | number | boolean>>

/** A choice that the stitch itself offers, for forms to show. */
export interface SettingField {
  readonly key: string
  readonly label: string
  readonly help: string
  readonly kind: 'choice' | 'length' | 'flag' | 'count' | 'number' | 'text'
  readonly choices?: readonly { readonly value: string; readonly label: string }[]
  /** Whether it counts as the others are set; always if left out. */
  counts?(settings: Settings): boolean
}
