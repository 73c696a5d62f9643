<script setup lang="ts">
import { onMounted, reactive, ref } from 'vue'
import { boundsOf } from '#core/bounds'
import { deviceStateSchema } from '#core/device/state'
import { READINGS, settle, STEADY, type Reading } from '#core/device/reading'
import { SUPPLIER_WAYS, type SupplierWay } from '#core/supply/price-list'
import { showNumber } from '#core/units/length'
import { deviceAnswer } from '#core/contract/shelf'
import { api } from '../composables/api'
import { readDevice } from '../composables/devices'
import { saying } from '../composables/saying'
import { useAccount } from '../stores/account'
import NumberField from '../components/NumberField.vue'
import BoxNav from '../components/BoxNav.vue'
import WorkshopHead from '../components/WorkshopHead.vue'

useHead({ title: 'Devices · Weben' })
type Kind = 'scale' | 'caliper'
interface State {
  on: boolean
  load: number
  jitter: number
  failNext: number
}
const account = useAccount()
const DEVICES: readonly { kind: Kind; name: string; unit: string; what: string }[] = [
  { kind: 'scale', name: 'Bench scale', unit: 'g', what: 'On the pan' },
  { kind: 'caliper', name: 'Caliper', unit: 'mm', what: 'Between the jaws' },
]
const state = reactive<Record<Kind, State>>({
  scale: { on: true, load: 0, jitter: 0, failNext: 0 },
  caliper: { on: true, load: 0, jitter: 0, failNext: 0 },
})
const shown = reactive<Record<Kind, string>>({ scale: '', caliper: '' })
const says = ref('')
/** What the devices are set to is read first: figures typed before would be written over. */
const known = ref(false)
/** One thing after the other: a reading is taken only when the device is set. */
let last: Promise<void> = Promise.resolve()
const guarded = (work: () => Promise<unknown>) => {
  last = last.then(() => {
    says.value = ''
    return saying(work, (text) => {
      says.value = text
    })
  })
  return last
}
onMounted(() =>
  guarded(async () => {
    for (const { kind } of DEVICES) state[kind] = (await api(deviceAnswer, `device/${kind}`)).state
    known.value = true
  }),
)
const set = (kind: Kind, more: Partial<State>) =>
  guarded(async () => {
    state[kind] = (
      await api(deviceAnswer, `device/${kind}`, { method: 'PUT', body: { ...state[kind], ...more } })
    ).state
  })
const read = (kind: Kind, unit: string) =>
  guarded(async () => {
    shown[kind] = ''
    try {
      const readings: Reading[] = []
      for (let k = 0; k < READINGS; k++) readings.push(await readDevice(kind))
      const s = settle(readings, STEADY[kind])!
      shown[kind] = `${showNumber(s.value, 2)} ${unit}${s.steady ? '' : ', swinging'}`
    } finally {
      state[kind] = (await api(deviceAnswer, `device/${kind}`)).state
    }
  })
const WAYS: Record<SupplierWay, string> = {
  well: 'answers at once, all in stock',
  short: 'short of stock',
  slow: 'slow to answer',
  down: 'down',
}
</script>

<template>
  <div>
    <WorkshopHead title="Devices"><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead>
    <main class="page">
      <BoxNav />
      <p class="soft">
        These are stand-ins that ship with Weben, so that weighing and shopping can be tried without a device on the
        table. Set here what they see; the box and the fit read them as they would a real one.
      </p>
      <p v-if="says" class="caution" role="alert">{{ says }}</p>
      <div class="devices">
        <section v-for="d in DEVICES" :key="d.kind" class="sheet" :aria-labelledby="d.kind">
          <h2 :id="d.kind">{{ d.name }}</h2>
          <p class="display" role="status">
            <span class="figure">{{ state[d.kind].on ? shown[d.kind] || '– – –' : 'off' }}</span>
          </p>
          <NumberField
            :disabled="!known"
            :model-value="state[d.kind].load"
            :label="`${d.what}, ${d.unit}`"
            :bounds="boundsOf(deviceStateSchema, 'load')"
            @update:model-value="(load) => set(d.kind, { load })"
          />
          <NumberField
            :disabled="!known"
            :model-value="state[d.kind].jitter"
            :label="`It trembles by, ${d.unit}`"
            :bounds="boundsOf(deviceStateSchema, 'jitter')"
            @update:model-value="(jitter) => set(d.kind, { jitter })"
          />
          <div class="acts">
            <button type="button" class="button main" @click="read(d.kind, d.unit)">Read the {{ d.kind }}</button>
            <button
              type="button"
              class="button"
              :aria-pressed="!state[d.kind].on"
              @click="set(d.kind, { on: !state[d.kind].on })"
            >
              {{ state[d.kind].on ? 'Pull the plug' : 'Plug it in' }}
            </button>
            <button type="button" class="button" @click="set(d.kind, { failNext: 1 })">Miss the next reading</button>
          </div>
          <p v-if="state[d.kind].failNext > 0" class="quiet">It will not answer once.</p>
        </section>
        <section v-if="account.account" class="sheet" aria-labelledby="supplier">
          <h2 id="supplier">Sample supplier</h2>
          <p class="quiet">An invented price list. How is its day?</p>
          <fieldset>
            <legend class="hidden">The supplier is</legend>
            <label v-for="w in SUPPLIER_WAYS" :key="w"
              ><input
                type="radio"
                name="supplier"
                :value="w"
                :checked="account.account.settings.supplier === w"
                @change="account.change({ supplier: w })"
              />
              {{ WAYS[w] }}</label
            >
          </fieldset>
        </section>
      </div>
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 1180px;
  margin: 0 auto;
  padding: 0 28px 40px;
  display: grid;
  gap: 20px;
}
.devices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(290px, 1fr));
  gap: 20px;
  align-items: start;
}
.sheet {
  display: grid;
  gap: 16px;
}
.display {
  background: var(--dark);
  color: var(--dark-ink);
  border-radius: var(--round-in);
  padding: 18px 20px;
  text-align: end;
}
.display .figure {
  font-size: 34px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
}
label {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 40px;
  cursor: pointer;
}
input[type='radio'] {
  width: 20px;
  height: 20px;
  accent-color: var(--madder);
}
.caution {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 10px 14px;
  border-radius: 10px;
}
@media (width <= 600px) {
  .page {
    padding: 0 14px 28px;
  }
}
</style>
