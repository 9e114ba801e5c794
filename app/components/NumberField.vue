<script setup lang="ts">
/** A number as it is typed; what cannot be read as one is said where it stands, and nothing is kept of it. */
const number = defineModel<number | null>({ required: true })
const props = defineProps<{
  label: string
  /** What is typed, as it is kept; null or NaN when it is no number. */
  read?: (typed: string) => number | null
  /** What is kept, as it is typed. */
  show?: (kept: number) => string
  problem?: string | undefined
  /** Of something that cannot be without it: an emptied field keeps what it held. */
  needed?: boolean
  whole?: boolean
}>()
const read = (text: string): number | null => (props.read ?? readNumber)(text)
const show = (kept: number): string => (props.show ?? String)(kept)
const readNumber = (text: string): number => Number(text.replace(',', '.'))
const text = ref('')
const unread = ref(false)
const typed = computed(() => text.value.trim())
const asKept = computed(() => {
  const value = typed.value === '' ? null : read(typed.value)
  return value !== null && Number.isFinite(value) ? value : null
})
watch(
  number,
  (kept) => {
    // What is being typed stays as it is typed: "8." is 8 already.
    if (kept === asKept.value) return
    text.value = kept === null ? '' : show(kept)
    unread.value = false
  },
  { immediate: true },
)
const said = computed(() =>
  unread.value ? `“${typed.value}” cannot be read here: it is left out.` : (props.problem ?? ''),
)

/** Kept with every key, as everything typed is; what is no number is complained of when the field is left. */
function keep(): void {
  unread.value = false
  if (asKept.value !== null || !props.needed) number.value = asKept.value
}
function leave(): void {
  unread.value = typed.value !== '' && asKept.value === null
  if (props.needed && typed.value === '' && number.value !== null) text.value = show(number.value)
}
</script>

<template>
  <v-text-field
    v-model="text"
    :label="label"
    :inputmode="whole ? 'numeric' : 'decimal'"
    :error-messages="said"
    @update:model-value="keep"
    @update:focused="(here) => here || leave()"
  />
</template>
