/**
 * The word by which this page's policy knows a style sheet for ours (nuxt.config.ts): what is written into the page by
 * others is not obeyed.
 */
export const ownWord = (): string => document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce ?? ''

/** A style sheet of ours in the head of the page. */
export function ownStyle(text: string): HTMLStyleElement {
  const style = document.createElement('style')
  style.nonce = ownWord()
  style.textContent = text
  document.head.append(style)
  return style
}
