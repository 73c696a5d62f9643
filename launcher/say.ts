/** What the launcher tells: progress on standard error, so that results on standard output stay clean. */
export const say = (text: string): void => {
  process.stderr.write(`weben: ${text}\n`)
}

/** A failure that the person at the terminal can do something about. */
export class Trouble extends Error {}

/** Runs one long step, saying that it began and how long it took. */
export async function step<T>(title: string, work: () => Promise<T> | T): Promise<T> {
  const began = Date.now()
  say(`${title}…`)
  const result = await work()
  say(`${title}: done in ${((Date.now() - began) / 1000).toFixed(1)} s`)
  return result
}
