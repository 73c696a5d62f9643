import { spawn, type SpawnOptions } from 'node:child_process'

export interface Outcome {
  readonly code: number
  readonly output: string
}

/** Runs a command to its end; its output is kept, and shown as it comes if `live`. */
export function run(
  command: string,
  args: readonly string[],
  { live = false, ...options }: SpawnOptions & { live?: boolean } = {},
): Promise<Outcome> {
  return new Promise((resolve) => {
    const child = spawn(command, args, { ...options, stdio: ['ignore', 'pipe', 'pipe'] })
    let output = ''
    const take = (chunk: Buffer) => {
      output += chunk.toString()
      if (live) process.stderr.write(chunk)
    }
    child.stdout?.on('data', take)
    child.stderr?.on('data', take)
    child.on('error', (error) => resolve({ code: 127, output: `${output}${error.message}` }))
    child.on('close', (code) => resolve({ code: code ?? 1, output }))
  })
}

export const lastLines = (text: string, count = 15): string => text.trimEnd().split('\n').slice(-count).join('\n')
