import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import {
  accountAnswer,
  accountSchema,
  archiveAnswer,
  devicesAnswer,
  sessionAnswer,
  storageAnswer,
  type Account,
} from '#core/contract/account'
import { anyAnswer } from '#core/contract/answer'
import type { AccountSettings } from '#core/contract/settings'
import { api, reach } from '../composables/api'

export type Settings = AccountSettings
export type { Account }

const BEEN_HERE = 'weben-been-here'
/** Who was signed in when the server was last reached: whose work this browser may show while it is away. */
const LAST_HERE = 'weben-account'

function lastHere(): Account | null {
  try {
    return accountSchema.parse(JSON.parse(localStorage.getItem(LAST_HERE) ?? 'null'))
  } catch {
    return null
  }
}

/** Who is signed in, and how they want things shown. */
export const useAccount = defineStore('account', () => {
  const account = ref<Account | null>(null)
  const demo = ref(false)
  const known = ref(false)
  const beenHere = localStorage.getItem(BEEN_HERE) !== null

  /** What this person usually does, for the techniques that let one choose it: it goes with all that is begun. */
  const habit = computed(() => ({ school: account.value?.settings.school ?? 'A' }))

  /** Settings that the server has not acknowledged, and whether some are under way. */
  let unsent: Partial<Settings> = {}
  let sending: Promise<void> | null = null

  function be(now: Account | null): void {
    if (account.value?.id !== now?.id) unsent = {}
    account.value = now
    reach.account = now?.id ?? null
    reach.signedOut = ''
    if (now) localStorage.setItem(LAST_HERE, JSON.stringify(now))
    else localStorage.removeItem(LAST_HERE)
  }

  async function look(): Promise<void> {
    const answer = await api(sessionAnswer, 'session', { within: 8000 })
    be(answer.account)
    demo.value = answer.demo
    known.value = true
  }

  /** The server is away: who was here last may see what this browser holds of theirs. Whether anyone was. */
  function rememberLast(): boolean {
    const last = lastHere()
    if (last) {
      account.value = last
      reach.account = last.id
    }
    return last !== null
  }

  const enter = async (path: string, body?: unknown): Promise<void> => {
    be((await api(accountAnswer, path, { method: 'POST', body })).account)
    known.value = true
    localStorage.setItem(BEEN_HERE, '1')
  }
  const signIn = (signIn: string, password: string) => enter('session', { signIn, password })
  const join = (signIn: string, password: string) => enter('account', { signIn, password })
  const openDemo = () => enter('session/demo')

  async function signOut(everywhere = false): Promise<void> {
    await api(anyAnswer, `session${everywhere ? '?everywhere=1' : ''}`, { method: 'DELETE' })
    be(null)
  }

  const devices = async () => (await api(devicesAnswer, 'session/device')).devices
  const endDevice = (id: string) => api(anyAnswer, `session/device/${id}`, { method: 'DELETE' })
  const changePassword = (now: string, next: string) =>
    api(anyAnswer, 'account/password', { method: 'PUT', body: { now, next } })
  const storage = () => api(storageAnswer, 'account/storage')
  /** Reads an archive into this account, which must be empty; its settings come along. */
  async function readArchive(file: Blob) {
    const read = await api(archiveAnswer, 'account/archive', { method: 'POST', file, within: 600_000 })
    await look()
    return read
  }
  async function removeAccount(password: string): Promise<void> {
    await api(anyAnswer, 'account', { method: 'DELETE', body: { password } })
    be(null)
  }

  async function sendSettings(): Promise<void> {
    while (Object.keys(unsent).length > 0) {
      const body = unsent
      const whose = account.value?.id
      unsent = {}
      try {
        await api(anyAnswer, 'settings', { method: 'PATCH', body, outlives: true })
      } catch (error) {
        // Nothing is lost: it goes along with the next change, of the same person.
        if (account.value?.id === whose) unsent = { ...body, ...unsent }
        throw error
      }
    }
  }
  /** Shown at once, and sent one after another: the last that was chosen is the last that the server hears. */
  async function change(settings: Partial<Settings>): Promise<void> {
    if (!account.value) return
    be({ ...account.value, settings: { ...account.value.settings, ...settings } })
    unsent = { ...unsent, ...settings }
    sending ??= sendSettings().finally(() => {
      sending = null
    })
    await sending
  }
  window.addEventListener('pagehide', () => {
    if (account.value) void sendSettings().catch(() => {})
  })

  return {
    account,
    habit,
    demo,
    known,
    beenHere,
    look,
    rememberLast,
    signIn,
    join,
    openDemo,
    signOut,
    devices,
    endDevice,
    changePassword,
    storage,
    readArchive,
    removeAccount,
    change,
  }
})
