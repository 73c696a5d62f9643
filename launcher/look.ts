import { randomBytes } from 'node:crypto'
import { startApplication } from './application'
import { ensureBuilt } from './build'
import { throwAwayCluster } from './postgres'
import { prepareDatabase } from './start'
const root = '/work/main'
const cluster = await throwAwayCluster()
await prepareDatabase(cluster.url, true)
process.env.WEBEN_JOIN_LIMIT = '1000'
await ensureBuilt(root, 'weben')
await startApplication({ root, variant: 'weben', port: 4174, databaseUrl: cluster.url, secret: randomBytes(32).toString('hex'), demo: true })
console.log('laid out')
await new Promise(() => {})
