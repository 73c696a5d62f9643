import { randomBytes } from 'node:crypto'
import { resolve } from 'node:path'
import { startApplication } from '../../launcher/application'
import { freePort, throwAwayCluster } from '../../launcher/postgres'
import { prepareDatabase } from '../../launcher/start'

/** The built application with the demo workshop, on a throw-away PostgreSQL. */
export default async function globalSetup() {
  const root = resolve(import.meta.dirname, '../..')
  const cluster = await throwAwayCluster()
  await prepareDatabase(cluster.url, true)
  // Every test makes an account of its own, all from one address.
  process.env.WEBEN_JOIN_LIMIT = '1000'
  const application = await startApplication({
    root,
    port: await freePort(),
    databaseUrl: cluster.url,
    secret: randomBytes(32).toString('hex'),
    demo: true,
  })
  process.env.WEBEN_TEST_ADDRESS = application.address
  process.env.WEBEN_TEST_DATABASE = cluster.url
  return async () => {
    await application.stop()
    cluster.remove()
  }
}
