<script setup lang="ts">
import { toString as drawCode } from 'qrcode'

/** The code a phone scans to send photographs to the step in hand. */
const props = defineProps<{ url: string | null; failure: string; words: string }>()
const emit = defineEmits<{ close: [] }>()
const code = ref('')
watch(
  () => props.url,
  async (url) => {
    code.value = url ? await drawCode(url, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }) : ''
  },
  { immediate: true },
)
const picture = computed(() => (code.value ? `data:image/svg+xml,${encodeURIComponent(code.value)}` : ''))
</script>

<template>
  <v-dialog :model-value="true" max-width="520" @update:model-value="emit('close')">
    <v-card title="Photographs from a phone">
      <v-card-text class="code">
        <p v-if="failure" class="sign sign--fault" role="alert">{{ failure }}</p>
        <template v-else-if="picture">
          <img :src="picture" alt="Code with the address for the phone" width="300" height="300" />
          <p>
            Scan it with the phone’s camera. Its pictures stand at <b>{{ words }}</b>, and follow as you go on.
          </p>
          <p class="quiet">Good for this job only, until it leaves the screen or ten minutes pass without a step.</p>
          <code class="quiet">{{ url }}</code>
        </template>
        <p v-else class="sign sign--care">
          The shop listens on this machine alone, where no phone can reach it. Start it with&nbsp;--lan, on a network
          you trust.
        </p>
      </v-card-text>
      <v-card-actions
        ><v-spacer /><v-btn color="primary" variant="flat" @click="emit('close')">Done</v-btn></v-card-actions
      >
    </v-card>
  </v-dialog>
</template>

<style scoped>
.code {
  display: grid;
  gap: 10px;
  justify-items: start;
}
img {
  justify-self: center;
  background: #fff;
  max-width: 100%;
  height: auto;
}
code {
  overflow-wrap: anywhere;
}
</style>
