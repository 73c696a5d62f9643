import type { Reading } from '#core/device/reading'
import { api } from './api'

/** Reads a device of the bench. Throws what the device says when it does not answer. */
export async function readDevice(kind: 'scale' | 'caliper'): Promise<Reading> {
  return (await api<{ reading: Reading }>(`device/${kind}/reading`, { method: 'POST', body: {} })).reading
}
