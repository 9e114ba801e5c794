<script setup lang="ts">
import { describeDue, showDay } from '~~/work/describe-due'
import { problemSentence } from '~/stores/problem-sentence'
import type { JobTag, Page } from '~~/messages/book'
import { jobStates, stations } from '~~/messages/vocabulary'

const route = useRoute()
const router = useRouter()
const session = useSessionStore()
const PAGE_SIZE = 20
const search = ref(String(route.query.search ?? ''))
const states = computed(() =>
  String(route.query.states ?? '')
    .split(',')
    .filter(Boolean),
)
const station = computed(() => (route.query.station ? String(route.query.station) : null))
const sort = computed(() =>
  String(route.query.sort ?? (states.value.includes('handed-back') || search.value ? 'newest' : 'due')),
)
const page = computed(() => Math.max(1, Number(route.query.page) || 1))
const result = shallowRef<Page<JobTag> | null>(null)
const failure = ref('')
const pages = computed(() => Math.max(1, Math.ceil((result.value?.total ?? 0) / PAGE_SIZE)))
const box = ref<{ focus: () => void }>()

function ask(changes: Record<string, string | undefined>): void {
  void router.replace({ query: { ...route.query, page: undefined, ...changes } })
}

let latest = 0
async function load(): Promise<void> {
  const mine = ++latest
  try {
    const answer = await $fetch<Page<JobTag>>('/api/jobs', {
      query: {
        search: route.query.search,
        states: states.value.join(','),
        station: station.value,
        sort: sort.value,
        page: page.value,
        pageSize: PAGE_SIZE,
      },
    })
    if (mine !== latest) return
    result.value = answer
    failure.value = ''
  } catch (error) {
    if (mine === latest) failure.value = problemSentence(error)
  }
}
watch(() => route.query, load, { immediate: true })
watchDebounced(search, (text) => ask({ search: text || undefined }), { debounce: 180 })
onMounted(() => box.value?.focus())

function toggleState(state: string): void {
  const next = states.value.includes(state) ? states.value.filter((other) => other !== state) : [...states.value, state]
  ask({ states: next.join(',') || undefined })
}
useBenchKeys([
  { key: 'n', label: 'Take in an engine', run: () => void router.push('/take-in') },
  { key: '/', label: 'Search', run: () => box.value?.focus() },
])
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Jobs</h1>
      <v-btn v-if="session.mayWrite" class="push" variant="outlined" color="primary" to="/take-in"
        >Take in an engine <kbd>N</kbd></v-btn
      >
    </div>
    <div class="asks">
      <v-text-field
        ref="box"
        v-model="search"
        label="Number, engine, owner or complaint"
        clearable
        type="search"
        class="search"
        @keydown.enter="result?.rows[0] && router.push(`/jobs/${result.rows[0].id}/${result.rows[0].station}`)"
      />
      <v-select
        :model-value="station"
        :items="[
          { value: null, title: 'Every station' },
          ...stations.map((entry) => ({ value: entry.id, title: entry.name })),
        ]"
        label="Station"
        class="narrow"
        @update:model-value="ask({ station: $event ?? undefined })"
      />
      <v-select
        :model-value="sort"
        :items="[
          { value: 'due', title: 'Due first' },
          { value: 'newest', title: 'Newest first' },
          { value: 'oldest', title: 'Oldest first' },
          { value: 'number', title: 'By number' },
        ]"
        label="Order"
        class="narrow"
        @update:model-value="ask({ sort: $event })"
      />
    </div>
    <div class="states" role="group" aria-label="State">
      <button
        v-for="(name, state) in jobStates"
        :key="state"
        type="button"
        :aria-pressed="states.includes(state)"
        :class="{ on: states.includes(state) }"
        @click="toggleState(state)"
      >
        {{ name }}
      </button>
    </div>
    <p v-if="failure" class="sign sign--care" role="alert">{{ failure }}</p>
    <template v-if="result">
      <p class="quiet total" aria-live="polite">
        {{
          result.total === 1
            ? '1 job'
            : `${result.more ? 'More than ' : ''}${result.total.toLocaleString('en-GB')} jobs`
        }}{{ result.more ? ': another word narrows it down' : '' }}
      </p>
      <EmptyState
        v-if="result.total === 0 && (search || states.length || station)"
        title="No job fits"
        text="Try fewer words, or leave out the station and state."
        action="Show every job"
        @act="
          () => {
            search = ''
            router.replace({ query: {} })
          }
        "
      />
      <EmptyState
        v-else-if="result.total === 0"
        title="No jobs yet"
        text="Every engine that comes in gets a tag and a line of stations."
        action="Take in an engine"
        to="/take-in"
      />
      <div v-else class="table-wrap">
        <table class="jobs">
          <thead>
            <tr>
              <th scope="col">Job</th>
              <th scope="col">Engine</th>
              <th scope="col">Complaint</th>
              <th scope="col">Owner</th>
              <th scope="col">Stands at</th>
              <th scope="col">Due</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="tag in result.rows" :key="tag.id" @click="router.push(`/jobs/${tag.id}/${tag.station}`)">
              <td class="figure">
                <NuxtLink :to="`/jobs/${tag.id}/${tag.station}`">{{ tag.number }}</NuxtLink>
              </td>
              <td>
                <strong>{{ tag.engineName }}</strong>
                <div class="quiet">{{ tag.typeName }}</div>
              </td>
              <td class="complaint">{{ tag.complaint }}</td>
              <td>{{ tag.ownerName }}</td>
              <td>
                {{
                  tag.state === 'waiting'
                    ? `Waiting: ${tag.waitingFor || 'no reason noted'}`
                    : tag.state === 'open'
                      ? stations.find((entry) => entry.id === tag.station)?.name
                      : jobStates[tag.state]
                }}
              </td>
              <td class="due">
                <span v-if="tag.handedBackAt">{{ showDay(tag.handedBackAt) }}</span><span
                  v-else-if="tag.dueOn"
                  :class="
                    describeDue(tag.dueOn, tag.state)?.late
                      ? 'sign sign--fault'
                      : describeDue(tag.dueOn, tag.state)?.soon
                        ? 'sign sign--care'
                        : ''
                  "
                  >{{ describeDue(tag.dueOn, tag.state)?.text }}</span
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <nav v-if="pages > 1" class="pager" aria-label="Pages">
        <v-btn variant="outlined" :disabled="page <= 1" @click="ask({ page: String(page - 1) })">Earlier</v-btn>
        <span>Page {{ page }} of {{ pages }}</span>
        <v-btn variant="outlined" :disabled="page >= pages" @click="ask({ page: String(page + 1) })">Later</v-btn>
      </nav>
    </template>
  </div>
</template>

<style scoped>
.asks {
  display: flex;
  gap: 22px;
  flex-wrap: wrap;
  align-items: end;
}
.search {
  flex: 1 1 320px;
}
.narrow {
  flex: 0 1 190px;
}
.states {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin: 14px 0 4px;
}
.states button {
  border: 1px solid var(--rule);
  padding: 0 16px;
  min-height: var(--target);
  font-weight: 550;
  color: var(--soft);
}
.states button.on {
  border: 2px solid var(--brass);
  color: var(--ink);
  background: var(--sheet);
}
.total {
  margin: 10px 0 6px;
}
.table-wrap {
  overflow-x: auto;
}
.jobs {
  width: 100%;
  border-collapse: collapse;
}
.jobs th {
  text-align: left;
  font-size: 0.82rem;
  font-weight: 550;
  color: var(--soft);
  padding: 6px 14px 6px 0;
}
.jobs td {
  border-top: 1px solid var(--rule);
  padding: 9px 14px 9px 0;
  vertical-align: top;
}
.jobs tbody tr {
  cursor: pointer;
}
.jobs tbody tr:hover {
  background: var(--sheet);
}
.jobs td .figure,
.jobs td a {
  font-weight: 650;
  color: var(--ink);
}
.complaint {
  max-width: 380px;
}
.due {
  white-space: nowrap;
}
.pager {
  display: flex;
  align-items: center;
  gap: 16px;
  margin-top: 18px;
}
@media (max-width: 700px) {
  .jobs thead {
    display: none;
  }
  .jobs tr {
    display: grid;
    grid-template-columns: 64px 1fr;
    border-top: 1px solid var(--rule);
    padding: 8px 0;
  }
  .jobs td {
    border: 0;
    padding: 1px 0;
    grid-column: 2;
  }
  .jobs td:first-child {
    grid-column: 1;
    grid-row: 1 / span 5;
  }
}
</style>
