import { randomBytes } from 'node:crypto'
import { resolve } from 'node:path'
import { startApplication } from '../../launcher/application'
import { ensureBuilt, type Variant } from '../../launcher/build'
import { freePort, throwAwayCluster } from '../../launcher/postgres'
import { prepareDatabase } from '../../launcher/start'

/** The built application, as it is or with the techniques of tests; with the demo, on a throw-away PostgreSQL. */
export async function setUp(variant: Variant) {
  const root = resolve(import.meta.dirname, '../..')
  const cluster = await throwAwayCluster()
  await prepareDatabase(cluster.url, true)
  await ensureBuilt(root, variant)
  const application = await startApplication({
    root,
    variant,
    port: await freePort(),
    databaseUrl: cluster.url,
    secret: randomBytes(32).toString('hex'),
    demo: true,
    // Every test makes an account of its own, all from one address.
    environment: { WEBEN_JOIN_LIMIT: '1000' },
  })
  process.env.WEBEN_TEST_ADDRESS = application.address
  process.env.WEBEN_TEST_DATABASE = cluster.url
  return async () => {
    await application.stop()
    cluster.remove()
  }
}

export default () => setUp('weben')
