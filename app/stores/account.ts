import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { SupplierWay } from '#core/supply/price-list'
import { api } from '../composables/api'

export interface Settings { unit: 'mm' | 'in', theme: 'system' | 'day' | 'evening', hand: 'right' | 'left', school: 'A' | 'B', paper: 'A4' | 'Letter', currency: string, supplier: SupplierWay }
export interface Account { id: string, signIn: string, settings: Settings }

const BEEN_HERE = 'weben-been-here'

/** Who is signed in, and how they want things shown. */
export const useAccount = defineStore('account', () => {
  const account = ref<Account | null>(null)
  const demo = ref(false)
  const known = ref(false)
  const beenHere = localStorage.getItem(BEEN_HERE) !== null

  async function look(): Promise<void> {
    const answer = await api<{ account: Account | null, demo: boolean }>('session')
    account.value = answer.account
    demo.value = answer.demo
    known.value = true
  }

  const enter = async (path: string, body?: unknown): Promise<void> => {
    account.value = (await api<{ account: Account }>(path, { method: 'POST', body })).account
    known.value = true
    localStorage.setItem(BEEN_HERE, '1')
  }
  const signIn = (signIn: string, password: string) => enter('session', { signIn, password })
  const join = (signIn: string, password: string) => enter('account', { signIn, password })
  const openDemo = () => enter('session/demo')

  async function signOut(everywhere = false): Promise<void> {
    await api(`session${everywhere ? '?everywhere=1' : ''}`, { method: 'DELETE' })
    account.value = null
  }

  async function change(settings: Partial<Settings>): Promise<void> {
    if (!account.value) return
    account.value = { ...account.value, settings: { ...account.value.settings, ...settings } }
    await api('settings', { method: 'PUT', body: account.value.settings })
  }

  return { account, demo, known, beenHere, look, signIn, join, openDemo, signOut, change }
})
