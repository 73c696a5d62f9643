import { spawn } from 'node:child_process'
import { openDatabase, prepareDatabase, readStartOptions, sessionSecret } from './start'

/** The development server: rebuilds as files change. */
export async function dev(root: string, args: readonly string[]): Promise<void> {
  const { port, host, empty } = readStartOptions(args)
  const { url, cluster } = await openDatabase(root)
  try {
    await prepareDatabase(url, !empty)
    const child = spawn('node_modules/.bin/nuxt', ['dev', '--host', host, '--port', String(port)], {
      cwd: root,
      stdio: 'inherit',
      env: {
        ...process.env,
        NODE_ENV: 'development',
        WEBEN_DATABASE_URL: url,
        WEBEN_SESSION_SECRET: sessionSecret(root),
        WEBEN_DEMO: empty ? '0' : '1',
      },
    })
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => child.kill(signal))
    await new Promise((done) => child.once('exit', done))
  } finally {
    cluster?.stop()
  }
}
