<script setup lang="ts">
import { problemSentence } from '~/stores/problem-sentence'
import type { EngineTag, OwnerRow, Page } from '~~/messages/book'
import { findScale } from '~~/core/measure/scales'
import { powers } from '~~/messages/vocabulary'

/** Engines and their owners, one search over both. */
const route = useRoute()
const router = useRouter()
const session = useSessionStore()
const PAGE_SIZE = 24
const search = ref(String(route.query.search ?? ''))
const page = computed(() => Math.max(1, Number(route.query.page) || 1))
const engines = shallowRef<Page<EngineTag> | null>(null)
const owners = shallowRef<Page<OwnerRow & { engines: number }> | null>(null)
const failure = ref('')
let latest = 0

async function load(): Promise<void> {
  const mine = ++latest
  try {
    const query = { search: search.value, pageSize: PAGE_SIZE }
    const [foundEngines, foundOwners] = await Promise.all([
      $fetch<Page<EngineTag>>('/api/engines', { query: { ...query, page: page.value } }),
      $fetch<Page<OwnerRow & { engines: number }>>('/api/owners', { query: { ...query, pageSize: 40 } }),
    ])
    if (mine !== latest) return
    engines.value = foundEngines
    owners.value = foundOwners
    failure.value = ''
  } catch (error) {
    if (mine === latest) failure.value = problemSentence(error)
  }
}
watch(() => route.query, load, { immediate: true })
watchDebounced(search, (text) => void router.replace({ query: { search: text || undefined } }), { debounce: 180 })
const pages = computed(() => Math.max(1, Math.ceil((engines.value?.total ?? 0) / PAGE_SIZE)))
const scaleOf = (tag: EngineTag): string =>
  [
    tag.scaleId && findScale(tag.scaleId)?.name,
    tag.gaugeMm && `${tag.gaugeMm} mm`,
    powers[tag.power as keyof typeof powers],
  ]
    .filter(Boolean)
    .join(', ')
useBenchKeys([{ key: 'n', label: 'Take in an engine', run: () => void router.push('/take-in') }])
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Engines & owners</h1>
      <NuxtLink to="/engines/care" class="care">Care book</NuxtLink>
      <v-text-field
        v-model="search"
        label="Engine, type, maker or owner"
        type="search"
        clearable
        class="search"
      /><v-btn v-if="session.mayWrite" variant="outlined" color="primary" to="/take-in"
        >Take in an engine <kbd>N</kbd></v-btn
      >
    </div>
    <p v-if="failure" class="sign sign--care" role="alert">{{ failure }}</p>
    <div v-if="engines && owners" class="columns columns--with-side">
      <section aria-label="Engines">
        <EmptyState
          v-if="engines.total === 0"
          :title="search ? 'No engine fits' : 'No engines yet'"
          :text="search ? 'Try fewer letters.' : 'An engine enters the book when it is taken in.'"
          action="Take in an engine"
          to="/take-in"
        />
        <ul class="engines">
          <li v-for="tag in engines.rows" :key="tag.id">
            <NuxtLink :to="`/engines/${tag.id}`"
              ><strong>{{ tag.name }}</strong
              ><span>{{ tag.typeName }}</span
              ><span class="quiet">{{ scaleOf(tag) }}</span
              ><span class="quiet"
                >{{ tag.ownerName }} · {{ tag.jobs === 1 ? '1 job' : `${tag.jobs} jobs`
                }}<template v-if="tag.openJobId"> · <b>here now</b></template></span
              ></NuxtLink
            >
          </li>
        </ul>
        <nav v-if="pages > 1" class="pager" aria-label="Pages">
          <v-btn
            variant="outlined"
            :disabled="page <= 1"
            @click="router.replace({ query: { ...route.query, page: page - 1 } })"
            >Earlier</v-btn
          ><span>Page {{ page }} of {{ pages }}</span
          ><v-btn
            variant="outlined"
            :disabled="page >= pages"
            @click="router.replace({ query: { ...route.query, page: page + 1 } })"
            >Later</v-btn
          >
        </nav>
      </section>
      <aside aria-labelledby="owners-head">
        <h2 id="owners-head">Owners</h2>
        <ul class="ruled-list owners">
          <li v-for="owner in owners.rows" :key="owner.id">
            <NuxtLink :to="`/owners/${owner.id}`">{{ owner.name }}</NuxtLink><span class="quiet">{{
              owner.engines === 1 ? '1 engine' : `${owner.engines} engines`
            }}</span>
          </li>
        </ul>
        <p v-if="owners.total > owners.rows.length" class="quiet">
          {{ owners.total - owners.rows.length }} more: search by name.
        </p>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.care {
  font-weight: 600;
}
.search {
  max-width: 420px;
  margin-left: auto;
}
.engines {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
  column-gap: 26px;
}
.engines a {
  display: grid;
  padding: 10px 0;
  border-top: 1px solid var(--rule);
  text-decoration: none;
  color: var(--ink);
  height: 100%;
  align-content: start;
}
.engines a:hover strong {
  text-decoration: underline;
}
.engines b {
  color: var(--brass-ink);
}
.owners li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
}
.owners a {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
  min-height: 26px;
}
.owners a:hover {
  text-decoration: underline;
}
.pager {
  display: flex;
  align-items: center;
  gap: 16px;
  margin-top: 18px;
}
</style>
