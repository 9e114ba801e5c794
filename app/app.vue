<script setup lang="ts">
const route = useRoute()
const session = useSessionStore()
const bare = computed(() => ['/sign-in', '/phone'].includes(route.path))
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
      <PhotographViewer />
      <ConflictDialog />
      <RefusedDialog />
      <KeysDialog />
      <ReckonerDrawer />
    </template>
  </v-app>
</template>
