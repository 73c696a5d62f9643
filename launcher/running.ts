import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { say, Trouble } from './say'

/** A process by its number and when it began: numbers are given again to others. */
interface Identity {
  readonly pid: number
  readonly began: string
}

/** When a process began, as the system counts it (proc(5), field 22) or `ps` words it; empty if there is none. */
function beganAt(pid: number): string {
  if (!existsSync('/proc/self/stat'))
    return spawnSync('ps', ['-o', 'lstart=', '-p', String(pid)], { encoding: 'utf8' }).stdout?.trim() ?? ''
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    // The second field is a name in brackets that may hold anything; a process that has ended and waits is none.
    const [state, ...fields] = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
    return state === 'Z' ? '' : fields[18]!
  } catch {
    return ''
  }
}

const identityOf = (pid: number): Identity => ({ pid, began: beganAt(pid) })

/** Whether that very process still runs. */
const runs = ({ pid, began }: Identity): boolean => began !== '' && beganAt(pid) === began

/** What a start writes down, so that the next one knows what it left behind if it was killed. */
interface Running {
  readonly launcher: Identity
  readonly application?: Identity
}

function read(file: string): Running | null {
  if (!existsSync(file)) return null
  try {
    const value = JSON.parse(readFileSync(file, 'utf8')) as Running
    return typeof value.launcher?.pid === 'number' ? value : null
  } catch {
    return null
  }
}

const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms))

async function end(orphan: Identity): Promise<void> {
  for (const signal of ['SIGTERM', 'SIGKILL'] as const) {
    if (!runs(orphan)) return
    process.kill(orphan.pid, signal)
    for (let tries = 0; tries < 50 && runs(orphan); tries++) await sleep(100)
  }
}

/**
 * Claims a folder for this start. Another one at work there is refused; what a killed one left running is ended, and
 * said. `release` takes the claim back.
 */
export async function claim(file: string): Promise<{ started(application: number): void; release(): void }> {
  const there = read(file)
  if (there && there.launcher.pid !== process.pid && runs(there.launcher))
    throw new Trouble(
      `Weben is already running from this folder (process ${there.launcher.pid}). Stop it first with Ctrl-C there, ` +
        `or with “kill ${there.launcher.pid}”.`,
    )
  if (there?.application && runs(there.application)) {
    say(`an earlier start was killed and left its application behind (process ${there.application.pid}): ending it`)
    await end(there.application)
  }
  mkdirSync(dirname(file), { recursive: true })
  const write = (now: Running) => writeFileSync(file, JSON.stringify(now))
  const launcher = identityOf(process.pid)
  write({ launcher })
  return {
    started: (pid) => write({ launcher, application: identityOf(pid) }),
    release: () => rmSync(file, { force: true }),
  }
}
