import { randomBytes } from 'node:crypto'
import { resolve } from 'node:path'
import type { TestProject } from 'vitest/node'
import { startApplication } from '../../launcher/application'
import { freePort, throwAwayCluster } from '../../launcher/postgres'
import { prepareDatabase } from '../../launcher/start'

declare module 'vitest' {
  export interface ProvidedContext {
    address: string
    databaseUrl: string
    secret: string
  }
}

/** The built application on a throw-away PostgreSQL, for all API tests. */
export default async function setup(project: TestProject) {
  const root = resolve(import.meta.dirname, '../..')
  const cluster = await throwAwayCluster()
  const secret = randomBytes(32).toString('hex')
  await prepareDatabase(cluster.url, true)
  const application = await startApplication({
    root,
    port: await freePort(),
    databaseUrl: cluster.url,
    secret,
    demo: true,
    // Most tests make accounts of their own, all from one address.
    environment: { WEBEN_JOIN_LIMIT: '1000' },
  })
  project.provide('address', application.address)
  project.provide('databaseUrl', cluster.url)
  project.provide('secret', secret)
  return async () => {
    await application.stop()
    cluster.remove()
  }
}
