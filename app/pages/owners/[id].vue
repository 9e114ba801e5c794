<script setup lang="ts">
import { emptyOwner } from '~/forms/empty-entries'
import { showDay } from '~~/work/describe-due'
import type { OwnerBook, ParcelTag } from '~~/messages/book'
import { ownerBookWith } from '~~/messages/changes'
import type { OwnerFields } from '~~/messages/book-entries'

/** One owner: how to reach them, their engines, their jobs. */
const route = useRoute()
const outbox = useOutbox()
const session = useSessionStore()
const id = computed(() => String(route.params.id))
const { book, failure } = useShopBook<OwnerBook>({ address: () => `/api/owners/${id.value}`, put: ownerBookWith })
const editing = ref(false)
const fields = ref<OwnerFields>(emptyOwner())
const begun = shallowRef<OwnerFields>(emptyOwner())
const { fits, under, forget } = useFormCheck('owner.save')

const parcels = shallowRef<readonly ParcelTag[]>([])
watch(
  id,
  async (owner) => {
    parcels.value = await $fetch<ParcelTag[]>('/api/parcels', { query: { owner } }).catch(() => [])
  },
  { immediate: true },
)

function edit({ owner }: OwnerBook): void {
  const { name, email, phone, address, notes, isShop } = owner
  fields.value = { name, email, phone, address, notes, isShop }
  begun.value = { ...fields.value }
  forget()
  editing.value = true
}

async function keep({ owner }: OwnerBook): Promise<void> {
  if (!fields.value.name.trim()) return
  const written = { id: owner.id, fields: { ...fields.value } }
  if (!(await fits(written))) return
  await outbox.send('owner.save', written, { version: owner.version, ...begun.value })
  editing.value = false
}
</script>

<template>
  <div class="page">
    <p v-if="failure" class="sign sign--care" role="alert">{{ failure }}</p>
    <template v-if="book">
      <div class="page-head">
        <h1>{{ book.owner.name }}</h1>
        <v-btn v-if="session.mayWrite" class="push" variant="outlined" @click="edit(book)">Change</v-btn>
      </div>
      <div class="columns columns--with-side">
        <section>
          <h2>Engines</h2>
          <p v-if="book.engines.length === 0" class="quiet">None in the book.</p>
          <ul class="ruled-list">
            <li v-for="engine in book.engines" :key="engine.id">
              <NuxtLink :to="`/engines/${engine.id}`" class="engine"
                ><strong>{{ engine.name }}</strong>
                <span class="quiet"
                  >{{ engine.typeName }}, {{ engine.jobs === 1 ? '1 job' : `${engine.jobs} jobs` }}</span
                ></NuxtLink
              >
            </li>
          </ul>
          <template v-if="parcels.length > 0"
            ><h2 class="jobs-head">Parcels</h2>
            <ul class="ruled-list">
              <li v-for="parcel in parcels" :key="parcel.id">
                <NuxtLink :to="`/parcels/${parcel.id}`" class="engine"
                  ><strong>Came {{ showDay(parcel.arrivedOn) }}</strong>
                  <span class="quiet"
                    >{{ parcel.engines === 1 ? '1 engine' : `${parcel.engines} engines` }},
                    {{ parcel.sentBackOn ? `sent back ${showDay(parcel.sentBackOn)}` : 'here' }}</span
                  ></NuxtLink
                >
              </li>
            </ul></template
          >
          <h2 class="jobs-head">Jobs</h2>
          <div class="jobs"><JobTag v-for="tag in book.jobs" :key="tag.id" :tag="tag" /></div>
        </section>
        <aside>
          <h2>Reach</h2>
          <p class="address">{{ book.owner.address }}</p>
          <p>
            <a v-if="book.owner.phone" :href="`tel:${book.owner.phone}`">{{ book.owner.phone }}</a>
          </p>
          <p>
            <a v-if="book.owner.email" :href="`mailto:${book.owner.email}`">{{ book.owner.email }}</a>
          </p>
          <p class="quiet notes">{{ book.owner.notes }}</p>
        </aside>
      </div>
      <v-dialog v-model="editing" max-width="720"
        ><v-card title="Owner"
          ><v-card-text
            ><OwnerFieldsForm
              v-model="fields"
              :problems="fields.name.trim() ? under('fields') : { name: 'The owner needs a name.' }" /></v-card-text
          ><v-card-actions
            ><v-btn variant="outlined" @click="editing = false">Leave</v-btn><v-spacer /><v-btn
              color="primary"
              variant="flat"
              @click="keep(book)"
              >Keep</v-btn
            ></v-card-actions
          ></v-card
        ></v-dialog
      >
    </template>
  </div>
</template>

<style scoped>
.engine {
  display: block;
  text-decoration: none;
  color: var(--ink);
  min-height: 26px;
}
.jobs-head {
  margin: 24px 0 10px;
}
.jobs {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(272px, 1fr));
  gap: 14px 26px;
  padding-left: 8px;
}
.address {
  white-space: pre-wrap;
  margin: 6px 0;
}
.notes {
  margin-top: 12px;
  white-space: pre-wrap;
}
</style>
