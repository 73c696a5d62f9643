import type { Reading } from '#core/device/reading'
import { readingAnswer } from '#core/contract/shelf'
import { api } from './api'

/** Reads a device of the bench. Throws what the device says when it does not answer. */
export async function readDevice(kind: 'scale' | 'caliper'): Promise<Reading> {
  return (await api(readingAnswer, `device/${kind}/reading`, { method: 'POST', body: {} })).reading
}
