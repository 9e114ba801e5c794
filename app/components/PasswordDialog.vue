<script setup lang="ts">
import { problemSentence } from '~/stores/problem-sentence'
import { v7 as newId } from 'uuid'

/** One's own new password; the one until now is asked for. */
const opened = defineModel<boolean>({ required: true })
const old = ref('')
const fresh = ref('')
const again = ref('')
const failure = ref('')
const done = ref(false)
const busy = ref(false)
const LEAST = 12

const problem = computed(() => {
  if (fresh.value !== '' && fresh.value.length < LEAST)
    return `Twelve characters or more; ${LEAST - fresh.value.length} to go.`
  if (again.value !== '' && again.value !== fresh.value) return 'The new password is not the same both times.'
  return ''
})
const ready = computed(() => old.value !== '' && fresh.value.length >= LEAST && again.value === fresh.value)

async function keep(): Promise<void> {
  if (!ready.value) return
  busy.value = true
  failure.value = ''
  try {
    await $fetch<unknown, string>('/api/session/password', {
      method: 'POST',
      body: { commandId: newId(), old: old.value, password: fresh.value },
    })
    done.value = true
  } catch (error) {
    failure.value = problemSentence(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-dialog v-model="opened" max-width="460">
    <v-card title="New password">
      <v-card-text v-if="done"
        ><p class="sign sign--sound" role="status">
          The new password counts from now on. Your other devices are signed out.
        </p></v-card-text
      >
      <v-card-text v-else>
        <form id="new-password" class="one" @submit.prevent="keep">
          <v-text-field
            v-model="old"
            v-focus-first
            label="Password until now"
            type="password"
            autocomplete="current-password"
          />
          <v-text-field
            v-model="fresh"
            label="New password, twelve characters or more"
            type="password"
            autocomplete="new-password"
          />
          <v-text-field v-model="again" label="The new one once more" type="password" autocomplete="new-password" />
          <p v-if="failure || problem" :class="failure ? 'sign sign--fault' : 'quiet'" role="alert">
            {{ failure || problem }}
          </p>
        </form>
      </v-card-text>
      <v-card-actions
        ><v-btn variant="outlined" @click="opened = false">{{ done ? 'Close' : 'Leave' }}</v-btn
        ><v-spacer /><v-btn
          v-if="!done"
          type="submit"
          form="new-password"
          color="primary"
          variant="flat"
          :disabled="!ready"
          :loading="busy"
          >Keep</v-btn
        ></v-card-actions
      >
    </v-card>
  </v-dialog>
</template>

<style scoped>
.one {
  display: grid;
  gap: 14px;
}
</style>
