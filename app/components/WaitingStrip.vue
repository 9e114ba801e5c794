<script setup lang="ts">
const outbox = useOutbox()
const session = useSessionStore()
const route = useRoute()
const refusedOpen = useRefusedDialog()

const others = computed(() => outbox.waiting.filter((entry) => entry.authorId !== session.person?.id))
const mine = computed(() => outbox.waiting.filter((entry) => entry.authorId === session.person?.id))
// An entry on its way for a moment is no news: the strip shows what lingers.
const shown = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () => mine.value.length > 0 || outbox.serverAway,
  (lingering) => {
    clearTimeout(timer)
    if (lingering)
      timer = setTimeout(() => {
        shown.value = true
      }, 700)
    else shown.value = false
  },
  { immediate: true },
)
onBeforeUnmount(() => clearTimeout(timer))

const noun = (count: number): string => `${count} ${count === 1 ? 'note' : 'notes'}`
</script>

<template>
  <div class="strips not-printed" role="status" aria-live="polite">
    <div v-if="session.ranOut" class="waiting care">
      <span class="sign sign--care"
        >You are signed out.
        {{ mine.length > 0 ? `${noun(mine.length)} waiting, kept on this device.` : 'Nothing is lost.' }}</span
      >
      <v-btn size="small" color="primary" :to="{ path: '/sign-in', query: { back: route.fullPath, again: 'yes' } }"
        >Sign in again</v-btn
      >
    </div>
    <div v-else-if="shown && mine.length > 0" class="waiting">
      <span class="sign sign--ask"
        >{{ noun(mine.length) }} waiting for the server{{
          outbox.serverAway ? ', kept on this device and sent by themselves' : ''
        }}</span
      >
    </div>
    <div v-if="others.length > 0" class="waiting">
      <span class="sign sign--ask"
        >{{ noun(others.length) }} by {{ others[0]?.authorName }} {{ others.length === 1 ? 'waits' : 'wait' }} for
        {{ others[0]?.authorName }} to sign in</span
      >
    </div>
    <div v-if="outbox.refused.length > 0" class="waiting fault">
      <span class="sign sign--fault">{{ noun(outbox.refused.length) }} refused by the server, kept here</span>
      <v-btn size="small" variant="outlined" @click="refusedOpen.opened.value = true">Look and mend</v-btn>
    </div>
  </div>
</template>

<style scoped>
/* Above the next action, never over it. */
.strips {
  position: fixed;
  left: 0;
  right: 0;
  bottom: 75px;
  z-index: 1200;
}
.waiting {
  display: flex;
  align-items: center;
  gap: 16px;
  justify-content: center;
  background: var(--sunk);
  border-top: 1px solid var(--rule);
  color: var(--ink);
  padding: 6px 16px;
  font-weight: 550;
  font-size: 0.94rem;
  min-height: 40px;
}
.waiting.care {
  border-top: 2px solid var(--amber);
}
.waiting.fault {
  border-top: 2px solid var(--red);
}
</style>
