import { resolve } from 'node:path'
import { say, Trouble } from './say'

const HELP = `Use: ./weben COMMAND

  start [--port 4173] [--host 127.0.0.1] [--empty]   serve Weben, with the demo workshop unless --empty
  test                                               run everything that is checked
  bench                                              measure the goals for speed, as ratios within one run
  mutate ROOM                                        plant mistakes in a room of core, tell which no test notices
  dev                                                development server
  backup FILE                                        write everything in the database to a file
  restore FILE                                       put the database back to what a backup holds
  report FILE                                        all that is computed for a piece file, as JSON
`

const root = resolve(import.meta.dirname, '..')
const [command, ...args] = process.argv.slice(2)

async function main(): Promise<void> {
  switch (command) {
    case 'start':
      return (await import('./start')).start(root, args)
    case 'test':
      return (await import('./test')).test(root)
    case 'bench':
      return (await import('./bench')).bench(root)
    case 'mutate':
      return (await import('./mutate')).mutate(root, args)
    case 'dev':
      return (await import('./dev')).dev(root, args)
    case 'backup':
      return (await import('./backup')).backup(root, args)
    case 'restore':
      return (await import('./backup')).restore(root, args)
    case 'report':
      return (await import('./report')).report(args)
    case undefined:
    case 'help':
    case '--help':
      process.stdout.write(HELP)
      return
    default:
      throw new Trouble(`“${command}” is not a command.\n${HELP}`)
  }
}

main().catch((error: unknown) => {
  if (error instanceof Trouble) say(error.message)
  else console.error(error)
  process.exitCode = 1
})
