<script setup lang="ts">
import { CURRENCIES } from '#core/money/money'
import { useAccount, type Settings } from '../stores/account'
import ScreenSize from '../components/ScreenSize.vue'
import WorkshopHead from '../components/WorkshopHead.vue'

useHead({ title: 'Settings · Weben' })
const store = useAccount()
const QUESTIONS: { key: keyof Settings, label: string, choices: { value: string, label: string }[] }[] = [
  { key: 'unit', label: 'Lengths in', choices: [{ value: 'mm', label: 'millimetres' }, { value: 'in', label: 'inches' }] },
  { key: 'theme', label: 'Light', choices: [{ value: 'system', label: 'as the device has it' }, { value: 'day', label: 'day' }, { value: 'evening', label: 'evening' }] },
  { key: 'hand', label: 'Working hand', choices: [{ value: 'right', label: 'right' }, { value: 'left', label: 'left: new pieces run the other way' }] },
  { key: 'school', label: 'Braiding', choices: [{ value: 'A', label: 'school A: bottom left up first' }, { value: 'B', label: 'school B: top left down first' }] },
  { key: 'paper', label: 'Paper', choices: [{ value: 'A4', label: 'A4' }, { value: 'Letter', label: 'Letter' }] },
]
async function out(everywhere: boolean) {
  await store.signOut(everywhere)
  await navigateTo('/enter')
}
</script>

<template>
  <div>
    <WorkshopHead title="Settings"><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead>
    <main v-if="store.account" class="page">
      <fieldset v-for="q in QUESTIONS" :key="q.key">
        <legend>{{ q.label }}</legend>
        <label v-for="c in q.choices" :key="c.value"><input type="radio" :name="q.key" :value="c.value" :checked="store.account.settings[q.key] === c.value" @change="store.change({ [q.key]: c.value })"> {{ c.label }}</label>
      </fieldset>
      <div class="one">
        <h2>Prices in</h2>
        <VSelect :model-value="store.account.settings.currency" :items="CURRENCIES.map(c => ({ value: c.code, title: `${c.name}, ${c.sign}` }))" label="Currency" @update:model-value="(v: string) => store.change({ currency: v })" />
      </div>
      <ScreenSize />
      <section>
        <h2>{{ store.account.signIn }}</h2>
        <div class="acts">
          <button type="button" class="button" @click="out(false)">Sign out</button>
          <button type="button" class="button" @click="out(true)">Sign out everywhere</button>
        </div>
      </section>
    </main>
  </div>
</template>

<style scoped>
.page { max-width: 720px; margin: 0 auto; padding: 8px 28px 40px; display: grid; gap: 28px; }
fieldset { border: 0; border-top: 1px solid var(--line); padding: 16px 0 0; margin: 0; display: grid; grid-template-columns: 180px 1fr; gap: 4px 16px; }
legend { float: left; grid-row: 1 / span 4; font: 650 17px/1.3 var(--title); padding: 8px 0 0; }
label { grid-column: 2; display: flex; align-items: center; gap: 12px; min-height: 40px; cursor: pointer; }
input { width: 20px; height: 20px; accent-color: var(--madder); }
section, .one { border-top: 1px solid var(--line); padding-top: 20px; display: grid; gap: 16px; }
.acts { display: flex; gap: 12px; flex-wrap: wrap; }
@media (width <= 600px) { .page { padding: 4px 14px 28px; } fieldset { grid-template-columns: 1fr; } label { grid-column: 1; } legend { grid-row: auto; } }
</style>
