import { deviceStateSchema, type DeviceState } from '../../core/device/state'
import { z } from 'zod'
import type { Reading } from '../../core/device/reading'
import type { Database } from '../database/connection'
import { Failure } from '../service/failure'

/**
 * The port to a measuring device. A reading is grams from a scale, millimetres from a caliper; a device that is off
 * throws a Failure.
 */
interface Device {
  read(): Promise<Reading>
}

export const DEVICE_KINDS = ['scale', 'caliper'] as const

export type DeviceKind = (typeof DEVICE_KINDS)[number]

export const deviceKind = z.enum(DEVICE_KINDS)

const USUAL: Record<DeviceKind, DeviceState> = {
  scale: deviceStateSchema.parse({ load: 14.62, jitter: 0.004 }),
  caliper: deviceStateSchema.parse({ load: 12.4, jitter: 0.01 }),
}

const NAME: Record<DeviceKind, string> = { scale: 'scale', caliper: 'caliper' }

export async function deviceState(db: Database, accountId: string, kind: DeviceKind): Promise<DeviceState> {
  const row = await db('device').where({ account_id: accountId, kind }).first<{ state: unknown }>('state')
  return row ? deviceStateSchema.catch(USUAL[kind]).parse(row.state) : USUAL[kind]
}

export async function setDevice(
  db: Database,
  accountId: string,
  kind: DeviceKind,
  state: DeviceState,
): Promise<DeviceState> {
  await db('device')
    .insert({ account_id: accountId, kind, state: JSON.stringify(state) })
    .onConflict(['account_id', 'kind'])
    .merge()
  return state
}

/**
 * The stand-in that ships with Weben: it trembles, can be off, and can miss the next readings. Its state lies in the
 * database.
 */
export function simulatedDevice(db: Database, accountId: string, kind: DeviceKind): Device {
  const silent = new Failure(
    503,
    'device-silent',
    `The ${NAME[kind]} does not answer. See that it is on and its cable sits, then press again. Nothing was ` +
      'changed; you can type the figure too.',
  )
  return {
    async read() {
      const state = await deviceState(db, accountId, kind)
      if (!state.on) throw silent
      if (state.failNext > 0) {
        await setDevice(db, accountId, kind, { ...state, failNext: state.failNext - 1 })
        throw silent
      }
      const tremble = (Math.random() + Math.random() - 1) * state.jitter
      return { value: Math.max(0, Math.round((state.load + tremble) * 100) / 100), steady: Math.abs(tremble) < 0.05 }
    },
  }
}
