import { spawn, type ChildProcess } from 'node:child_process'
import { serverEntry, type Variant } from './build'
import { Trouble } from './say'

interface ApplicationPlan {
  readonly root: string
  readonly port: number
  readonly databaseUrl: string
  readonly secret: string
  readonly demo: boolean
  readonly host?: string
  readonly variant?: Variant
  /** Where its log lines go. */
  readonly log?: 'inherit' | 'ignore' | number
  /** What it is told beside that, as in the README (`WEBEN_TRUST_PROXY`, say). */
  readonly environment?: Readonly<Record<string, string>>
}

export interface Application {
  readonly address: string
  readonly process: ChildProcess
  stop(): Promise<void>
}

const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms))

/** Starts the built application and waits until it answers. */
export async function startApplication({
  root,
  port,
  databaseUrl,
  secret,
  demo,
  host = '127.0.0.1',
  log = 'ignore',
  variant = 'weben',
  environment = {},
}: ApplicationPlan): Promise<Application> {
  const child = spawn(process.execPath, [serverEntry(root, variant)], {
    cwd: root,
    env: {
      ...process.env,
      ...environment,
      NODE_ENV: 'production',
      NITRO_HOST: host,
      NITRO_PORT: String(port),
      WEBEN_DATABASE_URL: databaseUrl,
      WEBEN_SESSION_SECRET: secret,
      WEBEN_DEMO: demo ? '1' : '0',
    },
    stdio: ['ignore', log, 'pipe'],
  })
  let errors = ''
  child.stderr?.on('data', (chunk: Buffer) => {
    errors = (errors + chunk.toString()).slice(-4000)
    if (log === 'inherit') process.stderr.write(chunk)
  })
  const ended = new Promise<void>((done) => child.once('exit', () => done()))
  const address = `http://${host}:${port}`
  for (let tries = 0; tries < 150; tries++) {
    if (child.exitCode !== null)
      throw new Trouble(
        errors.includes('EADDRINUSE')
          ? `Port ${port} is taken. Choose another with --port.`
          : `The application stopped at once:\n${errors}`,
      )
    try {
      const response = await fetch(`${address}/api/health`)
      if (response.ok) {
        return {
          address,
          process: child,
          stop: async () => {
            child.kill('SIGTERM')
            await Promise.race([ended, sleep(8000)])
            if (child.exitCode === null) child.kill('SIGKILL')
          },
        }
      }
    } catch {
      /* not listening yet */
    }
    await sleep(100)
  }
  child.kill('SIGKILL')
  throw new Trouble(`The application did not answer within 15 seconds.\n${errors}`)
}
