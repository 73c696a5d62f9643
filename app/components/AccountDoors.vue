<script setup lang="ts">
import { onMounted, ref } from 'vue'
import type { Device } from '#core/contract/account'
import { saying } from '../composables/saying'
import { useAccount } from '../stores/account'
import { useOutbox } from '../stores/outbox'

/** The doors of an account: its password, the devices on which it is open, and the way out for good. */
const store = useAccount()
const outbox = useOutbox()
type Door = 'devices' | 'password' | 'leave'
/** What came of it, beside what was pressed. */
const says = ref<Partial<Record<Door, string>>>({})
const busy = ref(false)
async function doing(door: Door, work: () => Promise<unknown>, done = '') {
  busy.value = true
  says.value = {}
  let failed = ''
  await saying(work, (text) => {
    failed = text
  })
  says.value = { [door]: failed || done }
  busy.value = false
  return failed === ''
}

// ---- password
const now = ref('')
const next = ref('')
async function changePassword() {
  const changed = await doing(
    'password',
    () => store.changePassword(now.value, next.value),
    'The password is changed; other devices are signed out.',
  )
  if (!changed) return
  now.value = ''
  next.value = ''
  await look()
}

// ---- devices
const devices = ref<readonly Device[]>([])
const look = () =>
  saying(
    async () => (devices.value = await store.devices()),
    () => {},
  )
onMounted(look)
const nameOf = ({ agent, here }: Device) => (here ? 'This device' : agent || 'A device')
const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
const when = (iso: string) => day.format(new Date(iso))
async function signOut(device: Device) {
  await doing('devices', () => store.endDevice(device.id), `${nameOf(device)} is signed out.`)
  await look()
}

// ---- for good
const going = ref(false)
const password = ref('')
async function removeAccount() {
  const id = store.account!.id
  const gone = await doing('leave', async () => {
    await store.removeAccount(password.value)
    await outbox.forget(id)
  })
  if (gone) await navigateTo('/enter')
}
function stay() {
  going.value = false
  password.value = ''
  says.value = {}
}
</script>

<template>
  <section aria-labelledby="doors">
    <h2 id="doors">Signed in on</h2>
    <ul class="devices">
      <li v-for="device in devices" :key="device.id">
        <span>
          <b>{{ nameOf(device) }}</b>
          <span class="soft">
            {{ device.here && device.agent ? `${device.agent}, ` : '' }}last used {{ when(device.seen) }}
          </span>
        </span>
        <button
          v-if="!device.here"
          type="button"
          class="button"
          :disabled="busy"
          :aria-label="`Sign out ${nameOf(device)}, last used ${when(device.seen)}`"
          @click="signOut(device)"
        >
          Sign out
        </button>
      </li>
    </ul>
    <p v-if="says.devices" class="says" role="status">{{ says.devices }}</p>
  </section>
  <section aria-labelledby="password">
    <h2 id="password">Another password</h2>
    <form class="form" @submit.prevent="changePassword">
      <input
        type="text"
        class="hidden"
        aria-label="Name"
        autocomplete="username"
        :value="store.account?.signIn"
        tabindex="-1"
        readonly
      />
      <VTextField v-model="now" label="Password now" type="password" autocomplete="current-password" required />
      <VTextField
        v-model="next"
        label="New password"
        type="password"
        autocomplete="new-password"
        hint="At least ten characters."
        persistent-hint
        required
      />
      <div><button type="submit" class="button" :disabled="busy || !now || !next">Change the password</button></div>
    </form>
    <p v-if="says.password" class="says" role="status">{{ says.password }}</p>
  </section>
  <section aria-labelledby="leave">
    <h2 id="leave">Leave Weben</h2>
    <p class="soft">
      Removes the account with every piece, the box, people and stamps, for good. Save all of it to a file first if you
      may want it again.
    </p>
    <form v-if="going" class="form" @submit.prevent="removeAccount">
      <VTextField
        v-model="password"
        label="Your password"
        autofocus
        type="password"
        autocomplete="current-password"
        required
      />
      <div class="acts">
        <button type="button" class="button main" @click="stay">Stay</button>
        <button type="submit" class="button" :disabled="busy || !password">Remove everything of mine</button>
      </div>
    </form>
    <div v-else><button type="button" class="button" @click="going = true">Remove my account…</button></div>
    <p v-if="says.leave" class="says" role="status">{{ says.leave }}</p>
  </section>
</template>

<style scoped src="./account-section.css" />

<style scoped>
.devices {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 8px;
}
.devices li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 16px;
  min-height: 48px;
}
.devices .soft {
  display: block;
}
.form {
  display: grid;
  gap: 14px;
  max-width: 420px;
}
</style>
