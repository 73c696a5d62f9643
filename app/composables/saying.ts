import { ApiError } from './api'

/** Runs what may fail at the server; a failure becomes a sentence fit to be shown. */
export async function saying(work: () => Promise<unknown>, say: (text: string) => void): Promise<void> {
  try {
    await work()
  } catch (error) {
    say(error instanceof ApiError ? error.says : 'That did not work. Try again in a moment.')
  }
}
