import { getRouterParam, type H3Event } from 'h3'
import { deviceKind, type DeviceKind } from '../device/device'
import { notFound } from '../service/failure'

/** The device that the address names. */
export function requireDevice(event: H3Event): DeviceKind {
  const kind = deviceKind.safeParse(getRouterParam(event, 'kind'))
  if (!kind.success) throw notFound()
  return kind.data
}
