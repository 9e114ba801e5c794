<script setup lang="ts">
const route = useRoute()
const session = useSessionStore()
const bare = computed(() => ['/sign-in', '/phone'].includes(route.path))

const outbox = useOutbox()
const [viewer, refused, keys, reckoner, timers] = [
  usePhotographViewer(),
  useRefusedDialog(),
  useKeysDialog(),
  useReckoner(),
  useTimerStore(),
]
/** What opens over a screen, and the screens most gone to, are fetched behind it: there when the server is away. */
const overWanted = ref(false)
const FETCHED_BEHIND_MS = 2500
onNuxtReady(() =>
  setTimeout(() => {
    overWanted.value = true
    for (const path of ['/', '/jobs', '/jobs/any', '/engines', '/engines/any', '/take-in'])
      void preloadRouteComponents(path)
  }, FETCHED_BEHIND_MS),
)
watch(
  () =>
    viewer.opened.value !== null ||
    outbox.stale.length > 0 ||
    refused.opened.value ||
    keys.opened.value ||
    reckoner.opened.value ||
    timers.dialogOpen,
  (asked) => {
    if (asked) overWanted.value = true
  },
)
</script>

<template>
  <v-app>
    <NuxtRouteAnnouncer />
    <TopStrip v-if="!bare && session.person" />
    <v-main>
      <TimerBar v-if="session.person && !bare" />
      <NuxtPage />
    </v-main>
    <template v-if="session.person && !bare">
      <WaitingStrip />
      <LazyOverEveryScreen v-if="overWanted" />
    </template>
  </v-app>
</template>
