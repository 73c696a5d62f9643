<script setup lang="ts">
import { ref } from 'vue'
import { DEMO_SIGN_IN } from '#core/contract/account'
import { CURRENCIES } from '#core/money/money'
import { saying } from '../composables/saying'
import { useAccount, type Settings } from '../stores/account'
import { useOutbox } from '../stores/outbox'
import AccountDoors from '../components/AccountDoors.vue'
import AccountKeeps from '../components/AccountKeeps.vue'
import ScreenSize from '../components/ScreenSize.vue'
import WorkshopHead from '../components/WorkshopHead.vue'

useHead({ title: 'Settings · Weben' })
const store = useAccount()
const says = ref('')
const QUESTIONS: {
  key: Exclude<keyof Settings, 'benchHours'>
  label: string
  choices: { value: string; label: string }[]
}[] = [
  {
    key: 'unit',
    label: 'Lengths in',
    choices: [
      { value: 'mm', label: 'millimetres' },
      { value: 'in', label: 'inches' },
    ],
  },
  {
    key: 'theme',
    label: 'Light',
    choices: [
      { value: 'system', label: 'as the device has it' },
      { value: 'day', label: 'day' },
      { value: 'evening', label: 'evening' },
    ],
  },
  {
    key: 'hand',
    label: 'Working hand',
    choices: [
      { value: 'right', label: 'right' },
      { value: 'left', label: 'left: new pieces run the other way' },
    ],
  },
  {
    key: 'school',
    label: 'Braiding',
    choices: [
      { value: 'A', label: 'school A: bottom left up first' },
      { value: 'B', label: 'school B: top left down first' },
    ],
  },
  {
    key: 'letters',
    label: 'Letter keys',
    choices: [
      { value: 'on', label: 'on: single letters choose tools while the mat has the focus' },
      { value: 'off', label: 'off: letters do nothing; everything has its button' },
    ],
  },
  {
    key: 'proved',
    label: 'Printing',
    choices: [
      { value: 'off', label: 'everything: what wants a look stands on the sheet' },
      { value: 'on', label: 'only what is proved: nothing stops the work, nothing looks wrong' },
    ],
  },
  {
    key: 'paper',
    label: 'Paper',
    choices: [
      { value: 'A4', label: 'A4' },
      { value: 'Letter', label: 'Letter' },
    ],
  },
]
const change = (more: Partial<Settings>) =>
  saying(
    () => store.change(more),
    (text) => {
      says.value = text
    },
  )

// ---- signing out: what is not sent yet is sent first, or the person says that it may go
const outbox = useOutbox()
const busy = ref(false)
const asked = ref<{ readonly everywhere: boolean; readonly edits: number } | null>(null)
async function out(everywhere: boolean) {
  busy.value = true
  const edits = await outbox.sendAll(6000)
  busy.value = false
  if (edits > 0) asked.value = { everywhere, edits }
  else await leave(everywhere)
}
async function leave(everywhere: boolean) {
  asked.value = null
  const id = store.account!.id
  await saying(
    async () => {
      await store.signOut(everywhere)
      await outbox.forget(id)
      await navigateTo('/enter')
    },
    (text) => {
      says.value = text
    },
  )
}
</script>

<template>
  <div>
    <WorkshopHead title="Settings"><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead>
    <main v-if="store.account" class="page">
      <fieldset v-for="q in QUESTIONS" :key="q.key">
        <legend>{{ q.label }}</legend>
        <label v-for="c in q.choices" :key="c.value"
          ><input
            type="radio"
            :name="q.key"
            :value="c.value"
            :checked="store.account.settings[q.key] === c.value"
            @change="change({ [q.key]: c.value })"
          />
          {{ c.label }}</label
        >
      </fieldset>
      <div class="one">
        <h2>Prices in</h2>
        <VSelect
          :model-value="store.account.settings.currency"
          :items="CURRENCIES.map((c) => ({ value: c.code, title: `${c.name}, ${c.sign}` }))"
          label="Currency"
          @update:model-value="(v: Settings['currency']) => change({ currency: v })"
        />
      </div>
      <ScreenSize />
      <section>
        <h2>{{ store.account.signIn }}</h2>
        <div class="acts">
          <button type="button" class="button" :disabled="busy" @click="out(false)">Sign out</button>
          <button type="button" class="button" :disabled="busy" @click="out(true)">Sign out everywhere</button>
        </div>
        <p class="soft">Signing out takes everything of yours out of this browser.</p>
        <p v-if="says" class="trouble" role="alert">{{ says }}</p>
      </section>
      <AccountKeeps />
      <AccountDoors v-if="store.account.signIn !== DEMO_SIGN_IN" />
    </main>
    <VDialog
      :model-value="asked !== null"
      max-width="480"
      role="alertdialog"
      aria-label="Edits are not sent yet"
      @update:model-value="
        (v) => {
          if (!v) asked = null
        }
      "
    >
      <div v-if="asked" class="sheet ask">
        <h2>{{ asked.edits === 1 ? 'One edit is not sent yet' : `${asked.edits} edits are not sent yet` }}</h2>
        <p>
          They are only in this browser. Signing out clears them; stay signed in until the server has them, or open the
          piece if it waits for your choice.
        </p>
        <button type="button" class="button main" @click="asked = null">Stay signed in</button>
        <button type="button" class="button" @click="leave(asked.everywhere)">Sign out and let them go</button>
      </div>
    </VDialog>
  </div>
</template>

<style scoped>
.page {
  max-width: 720px;
  margin: 0 auto;
  padding: 8px 28px 40px;
  display: grid;
  gap: 28px;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--line);
  padding: 16px 0 0;
  margin: 0;
  display: grid;
  grid-template-columns: 180px 1fr;
  gap: 4px 16px;
}
legend {
  float: left;
  grid-row: 1 / span 4;
  font: 650 17px/1.3 var(--title);
  padding: 8px 0 0;
}
label {
  grid-column: 2;
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 40px;
  cursor: pointer;
}
input {
  width: 20px;
  height: 20px;
  accent-color: var(--madder);
}
section,
.one {
  border-top: 1px solid var(--line);
  padding-top: 20px;
  display: grid;
  gap: 16px;
}
.ask {
  display: grid;
  gap: 14px;
  box-shadow: var(--shadow);
}
.trouble {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 10px 14px;
  border-radius: var(--round-in);
}
.acts {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
}
@media (width <= 600px) {
  .page {
    padding: 4px 14px 28px;
  }
  fieldset {
    grid-template-columns: 1fr;
  }
  label {
    grid-column: 1;
  }
  legend {
    grid-row: auto;
  }
}
</style>
