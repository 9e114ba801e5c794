<script setup lang="ts" generic="T extends { id: string }">
import { problemSentence } from '~/stores/problem-sentence'
import type { Page } from '~~/messages/book'

/** Finds a row of the book by a few letters: the matches as large targets, the first one on Enter. */
const props = defineProps<{ path: string; label: string; title: (row: T) => string; detail: (row: T) => string }>()
const emit = defineEmits<{ choose: [row: T] }>()
const text = ref('')
const rows = shallowRef<T[]>([])
const total = ref(0)
const failure = ref('')
let latest = 0

async function look(): Promise<void> {
  const mine = ++latest
  try {
    const page = await $fetch<Page<T>>(props.path, { query: { search: text.value, pageSize: 6 } })
    if (mine !== latest) return
    rows.value = [...page.rows]
    total.value = page.total
    failure.value = ''
  } catch (error) {
    if (mine === latest) failure.value = problemSentence(error)
  }
}
watchDebounced(text, look, { debounce: 150, immediate: true })
</script>

<template>
  <div>
    <v-text-field
      v-model="text"
      :label="label"
      type="search"
      autocomplete="off"
      @keydown.enter.prevent="rows[0] && emit('choose', rows[0])"
    />
    <p v-if="failure" class="sign sign--care">{{ failure }}</p>
    <ul class="found">
      <li v-for="row in rows" :key="row.id">
        <button type="button" @click="emit('choose', row)">
          <strong>{{ title(row) }}</strong><span class="quiet">{{ detail(row) }}</span>
        </button>
      </li>
    </ul>
    <p v-if="total > rows.length" class="quiet">{{ total - rows.length }} more: type a few letters.</p>
    <p v-else-if="rows.length === 0 && text" class="quiet">Nobody and nothing by that name yet.</p>
  </div>
</template>

<style scoped>
.found {
  list-style: none;
  margin: 6px 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 6px;
}
.found button {
  width: 100%;
  text-align: left;
  display: grid;
  padding: 8px 12px;
  min-height: var(--target);
  border: 1px solid var(--rule);
  background: var(--sheet);
}
.found button:hover {
  border-color: var(--brass);
}
</style>
