<script setup lang="ts">
import type { SearchReport } from '~~/core/diagnosis/report/search-report'

/** Anything that can be said of this engine, found by a word and noted at once with its act and state. */
const props = defineProps<{ sayable: SearchReport['sayable']; mayWrite: boolean }>()
const emit = defineEmits<{ say: [test: string, outcome: string] }>()
const picked = ref<string | null>(null)
const said = ref('')
const times = ref(0)

const items = computed(() =>
  props.sayable.flatMap(({ id, words, act, outcomes }) =>
    outcomes.map((outcome) => ({
      value: `${id}\n${outcome.id}`,
      title: `${words}: ${outcome.words.toLowerCase()}`,
      act,
      finds: outcome.finds !== null,
    })),
  ),
)
/** Every word typed has to begin a word of it, in whatever order. */
function fits(title: string, query: string, item?: { raw?: { act?: string } }): boolean {
  const words = `${title} ${item?.raw?.act ?? ''}`.toLowerCase().split(/[^\p{L}\d]+/u)
  return query
    .toLowerCase()
    .split(/[^\p{L}\d]+/u)
    .filter(Boolean)
    .every((typed) => words.some((word) => word.startsWith(typed)))
}
const field = useTemplateRef<{ focus: () => void }>('field')
const open = (): void => field.value?.focus()
watch(picked, (value) => {
  if (!value) return
  const [test = '', outcome = ''] = value.split('\n')
  said.value = items.value.find((item) => item.value === value)?.title ?? ''
  emit('say', test, outcome)
  picked.value = null
  // Empty again and left: the keys speak to the search, and U takes it back.
  times.value += 1
})
useBenchKeys([{ key: 'v', label: 'Say what you see', run: open }])
</script>

<template>
  <div v-if="mayWrite" class="say">
    <v-autocomplete
      :key="times"
      ref="field"
      v-model="picked"
      :items="items"
      :custom-filter="fits"
      label="Say what you see (V)"
      placeholder="oil, lead off, growls …"
      no-data-text="Nothing in the book goes by these words: note it by hand."
      density="comfortable"
      variant="outlined"
      hide-details
      clearable
      auto-select-first
      :menu-props="{ maxHeight: 320 }"
    >
      <template #item="{ props: line, item }">
        <v-list-item
          v-bind="line"
          :title="item.title"
          :subtitle="item.finds ? `${item.act}. Found with it.` : item.act"
        />
      </template>
    </v-autocomplete>
    <p v-if="said" class="quiet" role="status">Noted: {{ said }}.</p>
  </div>
</template>

<style scoped>
.say {
  display: grid;
  gap: 2px;
  min-width: 0;
}
</style>
