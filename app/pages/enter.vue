<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { ApiError } from '../composables/api'
import { useAccount } from '../stores/account'

/** What lays and draws beads is large: the door opens before the picture beside it is there. */
const WelcomeBand = defineAsyncComponent(() => import('../components/WelcomeBand.vue'))

const store = useAccount()
const route = useRoute()
// Who has not been here in this browser wants an account, not a password prompt.
const joining = ref(!store.beenHere)
const name = ref('')
const password = ref('')
const problem = ref('')
const busy = ref(false)

const back = computed(() => {
  const to = String(route.query.back ?? '/')
  return to.startsWith('/') && !to.startsWith('//') ? to : '/'
})

async function go(work: () => Promise<void>) {
  problem.value = ''
  busy.value = true
  try {
    await work()
    await navigateTo(back.value)
  } catch (error) {
    problem.value =
      error instanceof ApiError
        ? (error.problems[0]?.says.replace(/^\w+: /, '') ?? error.says)
        : 'That did not work. Try again in a moment.'
  } finally {
    busy.value = false
  }
}

const submit = () =>
  go(() => (joining.value ? store.join(name.value, password.value) : store.signIn(name.value, password.value)))
function otherWay() {
  joining.value = !joining.value
  problem.value = ''
}
</script>

<template>
  <main class="enter">
    <div class="mat-picture" aria-hidden="true">
      <WelcomeBand />
    </div>
    <div class="way">
      <h1 class="word">Weben</h1>
      <p class="lead">
        Plan what you weave in small beads: the pattern on its own grid, every bead counted, and a band that closes.
      </p>

      <button v-if="store.demo" class="button main wide" type="button" :disabled="busy" @click="go(store.openDemo)">
        Open the demo workshop
      </button>

      <form class="form" @submit.prevent="submit">
        <h2>{{ joining ? 'Make an account' : 'Sign in' }}</h2>
        <VTextField v-model="name" label="Name" autocomplete="username" name="username" required />
        <VTextField
          v-model="password"
          label="Password"
          type="password"
          name="password"
          :autocomplete="joining ? 'new-password' : 'current-password'"
          :hint="joining ? 'At least ten characters.' : undefined"
          persistent-hint
          required
        />
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <button class="button wide" :class="{ main: !store.demo }" type="submit" :disabled="busy">
          {{ joining ? 'Make the account' : 'Sign in' }}
        </button>
      </form>
      <p class="other">
        {{ joining ? 'You have one?' : 'New here?' }}
        <button class="link" type="button" @click="otherWay">
          {{ joining ? 'Sign in' : 'Make an account' }}
        </button>
      </p>
    </div>
  </main>
</template>

<style scoped>
.enter {
  min-height: 100dvh;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(380px, 520px);
}
.mat-picture {
  background: var(--mat);
  margin: 16px 0 16px 16px;
  border-radius: var(--round);
  overflow: hidden;
  display: grid;
  place-items: center;
}
.way {
  padding: 48px;
  align-self: center;
  display: grid;
  gap: 24px;
}
.word {
  font-size: 52px;
  letter-spacing: -0.03em;
}
.lead {
  font-size: 18px;
  color: var(--soft);
  max-width: 34ch;
}
.form {
  display: grid;
  gap: 16px;
}
.wide {
  width: 100%;
  min-height: 52px;
}
.problem {
  color: var(--marigold);
  background: var(--marigold-wash);
  padding: 12px 16px;
  border-radius: var(--round-in);
}
@media (width <= 860px) {
  .enter {
    grid-template-columns: 1fr;
    align-content: start;
  }
  .mat-picture {
    margin: 12px 12px 0;
    height: 132px;
  }
  .way {
    padding: 24px 20px;
    gap: 20px;
  }
  .word {
    font-size: 40px;
  }
}
</style>
