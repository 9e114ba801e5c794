<script setup lang="ts">
import { mdiLightbulbOnOutline, mdiLightbulbOutline, mdiMagnify } from '@mdi/js'
import { useTheme } from 'vuetify'

const session = useSessionStore()
const router = useRouter()
const route = useRoute()
const theme = useTheme()
const places = [
  { to: '/', name: 'Bench' },
  { to: '/jobs', name: 'Jobs' },
  { to: '/engines', name: 'Engines & owners' },
  { to: '/instruments', name: 'Instruments' },
  { to: '/workshop', name: 'Workshop' },
]
const lampOff = computed(() => theme.global.name.value === 'lampOff')
const { opened: keysOpen } = useKeysDialog()
const reckoner = useReckoner()
const passwordOpen = ref(false)
const menuOpen = ref(false)

function switchLamp(): void {
  theme.change(lampOff.value ? 'lampOn' : 'lampOff')
  localStorage.setItem('echoppe.lamp', lampOff.value ? 'off' : 'on')
}

function isHere(to: string): boolean {
  if (to === '/') return route.path === '/'
  return route.path.startsWith(to) || (to === '/engines' && route.path.startsWith('/owners'))
}

function askForPassword(): void {
  menuOpen.value = false
  passwordOpen.value = true
}

async function signOut(): Promise<void> {
  await session.signOut()
  await router.push('/sign-in')
}

useBenchKeys([
  { key: '/', label: 'Search jobs', run: () => void router.push({ path: '/jobs', query: { search: '' } }) },
  {
    key: '?',
    label: 'All keys',
    run: () => {
      keysOpen.value = true
    },
  },
  {
    key: 'k',
    label: 'Reckoner',
    run: () => {
      reckoner.opened.value = !reckoner.opened.value
    },
  },
])
</script>

<template>
  <header class="strip not-printed">
    <NuxtLink to="/" class="mark" aria-label="Echoppe, to the bench"
      ><img src="/mark.svg" alt="" width="26" height="26" /><span>Echoppe</span></NuxtLink
    >
    <nav aria-label="Places">
      <NuxtLink
        v-for="place in places"
        :key="place.to"
        :to="place.to"
        :class="{ here: isHere(place.to) }"
        :aria-current="isHere(place.to) ? 'page' : undefined"
        >{{ place.name }}</NuxtLink
      >
    </nav>
    <div class="tools">
      <NuxtLink :to="{ path: '/jobs', query: { search: '' } }" class="tool" aria-label="Search jobs"
        ><v-icon :icon="mdiMagnify" size="20" /><kbd class="wide-only">/</kbd></NuxtLink
      >
      <button type="button" class="tool" aria-label="Reckoner" @click="reckoner.opened.value = true">
        <span class="wide-only">Reckoner</span><kbd>K</kbd>
      </button>
      <button type="button" class="tool" aria-label="All keys" @click="keysOpen = true"><kbd>?</kbd></button>
      <button
        type="button"
        class="tool"
        :aria-label="lampOff ? 'Lamp on (light)' : 'Lamp off (dark)'"
        @click="switchLamp"
      >
        <v-icon :icon="lampOff ? mdiLightbulbOutline : mdiLightbulbOnOutline" size="20" />
      </button>
      <v-menu v-model="menuOpen">
        <template #activator="{ props }"
          ><button type="button" class="tool person" v-bind="props">
            {{ session.person?.name.split(' ')[0] }}
          </button></template
        >
        <div class="menu" role="menu">
          <button type="button" role="menuitem" @click="askForPassword">New password</button>
          <button type="button" role="menuitem" @click="signOut">Sign out</button>
        </div>
      </v-menu>
    </div>
    <LazyPasswordDialog v-if="passwordOpen" v-model="passwordOpen" />
  </header>
</template>

<style scoped>
.menu {
  display: grid;
  background: var(--sheet);
  border: 1px solid var(--rule);
  box-shadow: 0 6px 18px rgb(0 0 0 / 18%);
}
.menu button {
  padding: 0 20px;
  min-height: 48px;
  text-align: left;
  color: var(--ink);
}
.menu button:hover,
.menu button:focus-visible {
  background: var(--paper);
}
.strip {
  display: flex;
  align-items: stretch;
  gap: 26px;
  padding: 0 28px;
  height: 54px;
  border-bottom: 1px solid var(--rule);
  background: var(--paper);
}
.mark {
  display: flex;
  align-items: center;
  gap: 9px;
  text-decoration: none;
  color: var(--ink);
  font-weight: 700;
  font-size: 1.12rem;
  letter-spacing: -0.01em;
}
nav {
  display: flex;
  gap: 4px;
  overflow-x: auto;
  scrollbar-width: none;
}
nav a {
  display: flex;
  align-items: center;
  padding: 3px 12px 0;
  color: var(--soft);
  text-decoration: none;
  border-bottom: 3px solid transparent;
  white-space: nowrap;
  font-weight: 550;
}
nav a:hover {
  color: var(--ink);
}
nav a.here {
  color: var(--ink);
  border-bottom-color: var(--brass);
}
.tools {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 2px;
}
.tool {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-width: var(--target);
  height: var(--target);
  justify-content: center;
  padding: 0 8px;
  color: var(--soft);
  text-decoration: none;
  font-weight: 550;
  font-size: 0.9rem;
}
.tool:hover {
  color: var(--ink);
}
.person {
  color: var(--ink);
}
@media (max-width: 1120px) {
  .strip {
    gap: 16px;
  }
  nav a {
    padding: 3px 9px 0;
  }
  .wide-only {
    display: none;
  }
}
@media (max-width: 900px) {
  .strip {
    gap: 10px;
    padding: 0 12px;
  }
  .mark span,
  .wide-only {
    display: none;
  }
}
@media (max-width: 600px) {
  .strip {
    flex-wrap: wrap;
    height: auto;
    padding: 0 8px;
  }
  nav {
    order: 3;
    width: 100%;
    border-top: 1px solid var(--rule);
  }
  nav a {
    min-height: var(--target);
    padding: 3px 9px 0;
    font-size: 0.92rem;
  }
  .mark {
    min-height: 48px;
  }
}
</style>
