<script setup lang="ts">
import { plainCopy } from '~/forms/plain-copy'
import { v7 as newId } from 'uuid'
import { usualCommands } from '~~/bench/supply/supply-commands'
import type { InstrumentRow } from '~~/messages/book'
import type { InstrumentFields } from '~~/messages/bench-entries'

/** One bench supply: where it is and how it is spoken to. */
const props = defineProps<{ row: InstrumentRow | null }>()
const opened = defineModel<boolean>({ required: true })
const outbox = useOutbox()

const empty = (): InstrumentFields => ({
  name: 'Simulated bench supply',
  kind: 'simulated',
  host: '',
  port: 5025,
  leadOhms: 0.05,
  commands: { ...usualCommands },
  voltage: { percentOfReading: 0.05, digits: 2, resolution: 0.001 },
  current: { percentOfReading: 0.1, digits: 3, resolution: 0.0001 },
  retired: false,
})
const fields = ref<InstrumentFields>(empty())
const numbers = reactive({ port: '', leadOhms: '', voltsPercent: '', voltsDigits: '', ampsPercent: '', ampsDigits: '' })
const showCommands = ref(false)
watch(opened, (now) => {
  if (!now) return
  if (props.row) {
    const { id: _id, version: _version, ...kept } = props.row
    fields.value = plainCopy(kept) as InstrumentFields
  } else fields.value = empty()
  const { port, leadOhms, voltage, current } = fields.value
  Object.assign(numbers, {
    port: String(port),
    leadOhms: String(leadOhms),
    voltsPercent: String(voltage.percentOfReading),
    voltsDigits: String(voltage.digits),
    ampsPercent: String(current.percentOfReading),
    ampsDigits: String(current.digits),
  })
})
const read = (text: string): number => (text.trim() === '' ? Number.NaN : Number(text.replace(',', '.')))
const problem = computed(() => {
  if (!fields.value.name.trim()) return 'Give the instrument a name.'
  if (fields.value.kind === 'network' && !fields.value.host.trim())
    return 'Its address in the shop’s network is needed, for example 192.168.1.40.'
  if (!Number.isInteger(read(numbers.port)) || read(numbers.port) < 1 || read(numbers.port) > 65_535)
    return 'The port is a whole number up to 65535; many supplies listen at 5025.'
  if (
    ![numbers.leadOhms, numbers.voltsPercent, numbers.voltsDigits, numbers.ampsPercent, numbers.ampsDigits].every(
      (text) => read(text) >= 0,
    )
  )
    return 'Lead resistance and accuracy are numbers, zero or more.'
  return ''
})
const commandWords: Readonly<Record<keyof InstrumentFields['commands'], string>> = {
  identify: 'Who are you',
  setVolts: 'Set volts',
  setAmpsLimit: 'Set the current limit',
  outputOn: 'Output on',
  outputOff: 'Output off',
  polarityNormal: 'Polarity as clamped',
  polarityReversed: 'Polarity reversed',
  measureVolts: 'Read volts',
  measureAmps: 'Read amps',
  nextError: 'Next error',
  watchdog: 'Go off when silent for (s)',
  record: 'Record for (s)',
  recorded: 'Read the record',
  recordRate: 'Its rate',
  frequency: 'Give AC of (Hz)',
}
async function keep(): Promise<void> {
  if (problem.value) return
  const id = props.row?.id ?? newId()
  const { voltage, current } = fields.value
  const written: InstrumentFields = {
    ...(plainCopy(fields.value) as InstrumentFields),
    port: read(numbers.port),
    leadOhms: read(numbers.leadOhms),
    voltage: { ...voltage, percentOfReading: read(numbers.voltsPercent), digits: read(numbers.voltsDigits) },
    current: { ...current, percentOfReading: read(numbers.ampsPercent), digits: read(numbers.ampsDigits) },
  }
  await outbox.send('instrument.save', { id, fields: written }, props.row ?? undefined)
  opened.value = false
}
</script>

<template>
  <v-dialog v-model="opened" max-width="760">
    <v-card title="Bench supply with meter">
      <v-card-text class="fields">
        <v-text-field v-model="fields.name" label="Name" class="wide" />
        <v-select
          v-model="fields.kind"
          :items="[
            { value: 'simulated', title: 'The simulated one that ships' },
            { value: 'network', title: 'One on the shop’s network' },
          ]"
          label="It is"
        />
        <template v-if="fields.kind === 'network'"
          ><v-text-field v-model="fields.host" label="Address" /><v-text-field
            v-model="numbers.port"
            label="Port"
            inputmode="numeric"
        /></template>
        <v-text-field v-model="numbers.leadOhms" label="Both test leads together (Ω)" inputmode="decimal" />
        <v-text-field v-model="numbers.voltsPercent" label="Volts: ± percent" inputmode="decimal" /><v-text-field
          v-model="numbers.voltsDigits"
          label="+ digits"
          inputmode="decimal"
        />
        <v-text-field v-model="numbers.ampsPercent" label="Amps: ± percent" inputmode="decimal" /><v-text-field
          v-model="numbers.ampsDigits"
          label="+ digits"
          inputmode="decimal"
        />
        <v-checkbox v-model="fields.retired" label="Retired: no longer offered" />
        <v-btn variant="outlined" class="wide words" @click="showCommands = !showCommands">{{
          showCommands ? 'Hide how it is spoken to' : 'How it is spoken to'
        }}</v-btn>
        <template v-if="showCommands"
          ><v-text-field
            v-for="(words, key) in commandWords"
            :key="key"
            v-model="fields.commands[key]"
            :label="words"
          />
          <p class="quiet wide">
            A pair of braces stands for the number. Empty where it cannot: then it is done without.
          </p></template
        >
        <p v-if="problem" class="quiet wide">{{ problem }}</p>
      </v-card-text>
      <v-card-actions
        ><v-btn variant="outlined" @click="opened = false">Leave</v-btn><v-spacer /><v-btn
          color="primary"
          variant="flat"
          :disabled="problem !== ''"
          @click="keep"
          >Keep</v-btn
        ></v-card-actions
      >
    </v-card>
  </v-dialog>
</template>

<style scoped>
.words {
  justify-self: start;
}
</style>
