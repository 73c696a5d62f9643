/** Hands a file to the person: the browser saves it. */
export function saveFile(name: string, content: string | Uint8Array<ArrayBuffer> | Blob, type: string): void {
  const url = URL.createObjectURL(content instanceof Blob ? content : new Blob([content], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}

/** A file name from a piece's name: letters, digits and dashes. */
export const slug = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60) || 'piece'
