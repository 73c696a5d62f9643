import { randomBytes } from 'node:crypto'
import { resolve } from 'node:path'
import { startApplication } from './application'
import { throwAwayCluster } from './postgres'
import { prepareDatabase } from './start'

const root = resolve(import.meta.dirname, '..')
const cluster = await throwAwayCluster({})
await prepareDatabase(cluster.url, true)
process.env.WEBEN_JOIN_LIMIT = '1000'
await startApplication({
  root,
  port: 4175,
  databaseUrl: cluster.url,
  secret: randomBytes(32).toString('hex'),
  demo: true,
})
await new Promise(() => {})
