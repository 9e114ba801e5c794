<script setup lang="ts">
const route = useRoute()
const session = useSessionStore()
const bare = computed(() => route.path === '/sign-in')
</script>

<template>
  <v-app>
    <NuxtRouteAnnouncer />
    <TopStrip v-if="!bare && session.person" />
    <v-main>
      <NuxtPage />
    </v-main>
    <template v-if="session.person && !bare">
      <WaitingStrip />
      <TimerBar />
      <ConflictDialog />
      <RefusedDialog />
      <KeysDialog />
      <ReckonerDrawer />
    </template>
  </v-app>
</template>
