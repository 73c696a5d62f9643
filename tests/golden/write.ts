import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { GOLDEN_PIECES, outputsOf, printOf } from './outputs'

/** Writes the prints of all outputs as they are now; with a folder named, the outputs themselves into it instead. */
const [folder] = process.argv.slice(2)
const prints: Record<string, Record<string, string>> = {}
for (const { name, piece } of GOLDEN_PIECES) {
  const outputs = await outputsOf(piece)
  prints[name] = Object.fromEntries(Object.entries(outputs).map(([what, output]) => [what, printOf(output)]))
  if (folder === undefined) continue
  const at = join(folder, name.replaceAll(/[^a-z0-9]+/gi, '-'))
  mkdirSync(at, { recursive: true })
  for (const [what, output] of Object.entries(outputs)) writeFileSync(join(at, what), output)
}
if (folder === undefined)
  writeFileSync(new URL('./golden.json', import.meta.url), `${JSON.stringify(prints, null, 2)}\n`)
