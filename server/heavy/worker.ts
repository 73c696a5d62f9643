import { WORK } from './work'

/** One job in a worker of the pool: built into a file of its own beside the server (nuxt.config.ts). */
export default ({ name, input }: { name: keyof typeof WORK; input: never }): unknown => WORK[name](input)
