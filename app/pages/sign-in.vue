<script setup lang="ts">
import { problemSentence } from '~/stores/problem-sentence'
const session = useSessionStore()
const route = useRoute()
const router = useRouter()
const name = ref('')
const password = ref('')
const failure = ref('')
const busy = ref(false)
const first = ref({ code: '', workshopName: '', name: '', signInName: '', password: '' })

async function onward(): Promise<void> {
  const back =
    typeof route.query.back === 'string' && route.query.back.startsWith('/') && !route.query.back.startsWith('//')
      ? route.query.back
      : '/'
  await router.push(back)
}

async function attempt(work: () => Promise<void>): Promise<void> {
  busy.value = true
  failure.value = ''
  try {
    await work()
    await onward()
  } catch (error) {
    failure.value = problemSentence(error)
  } finally {
    busy.value = false
  }
}

const signIn = () => attempt(() => session.signIn(name.value, password.value))
const openWorkshop = () =>
  attempt(async () => {
    await $fetch('/api/first-owner', {
      method: 'POST',
      body: { ...first.value, signInName: first.value.signInName.trim().toLowerCase() },
    })
    await session.load()
  })
</script>

<template>
  <div class="door">
    <div class="plate">
      <img src="/mark.svg" alt="" width="64" height="64" />
      <h1>Echoppe</h1>
      <p class="quiet">The bench companion and job book for electric model locomotives that have seen some years.</p>
    </div>
    <form v-if="session.firstOwnerWanted" class="form" @submit.prevent="openWorkshop">
      <h2>Open the workshop</h2>
      <p class="quiet">The book is empty. Whoever has the code from the terminal makes the owner’s account.</p>
      <v-text-field v-model="first.code" v-focus-first label="Code from the terminal" required autocomplete="off" />
      <v-text-field v-model="first.workshopName" label="Name of the workshop" required />
      <v-text-field v-model="first.name" label="Your name" required autocomplete="name" />
      <v-text-field v-model="first.signInName" label="Sign-in name (small letters)" required autocomplete="username" />
      <v-text-field
        v-model="first.password"
        label="Password, twelve characters or more"
        type="password"
        required
        autocomplete="new-password"
      />
      <p v-if="failure" class="sign sign--fault" role="alert">{{ failure }}</p>
      <v-btn type="submit" color="primary" size="large" block :loading="busy">Open the workshop</v-btn>
    </form>
    <form v-else class="form" @submit.prevent="signIn">
      <h2>Sign in</h2>
      <p v-if="route.query.again" class="quiet">What waits on this device is kept and sent as soon as you are back.</p>
      <v-text-field v-model="name" v-focus-first label="Name" required autocomplete="username" autocapitalize="none" />
      <v-text-field v-model="password" label="Password" type="password" required autocomplete="current-password" />
      <p v-if="session.clockTrouble" class="sign sign--care" role="status">{{ session.clockTrouble }}</p>
      <p v-if="failure" class="sign sign--fault" role="alert">{{ failure }}</p>
      <v-btn type="submit" color="primary" size="large" block :loading="busy">Sign in</v-btn>
      <p v-if="session.demo" class="quiet">The demo’s sign-in stands in the terminal where it was started.</p>
    </form>
  </div>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  align-items: center;
  gap: 64px;
  max-width: 960px;
  margin: 0 auto;
  padding: 32px;
}
.plate {
  text-align: right;
  max-width: 24rem;
  justify-self: end;
  border-right: 1px solid var(--rule);
  padding: 40px 64px 40px 0;
}
.plate h1 {
  font-size: 2.6rem;
  margin: 12px 0 8px;
}
.form {
  display: grid;
  gap: 14px;
  max-width: 360px;
  width: 100%;
}
@media (max-width: 700px) {
  .door {
    grid-template-columns: 1fr;
    gap: 12px;
    align-content: center;
  }
  .plate {
    text-align: left;
    border: 0;
    padding: 0;
  }
  .plate h1 {
    font-size: 1.9rem;
  }
}
</style>
