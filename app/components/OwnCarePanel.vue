<script setup lang="ts">
import { noCareRows, type OwnCareRows } from '~~/core/knowledge/care/own-care-rows'

/** Where this shop cleans and oils otherwise than the cards that ship: every row is kept as it is entered. */
const workshop = useWorkshopStore()
const outbox = useOutbox()
const session = useSessionStore()
const rows = computed(() => workshop.book?.workshop.careRows ?? noCareRows)

async function keep(careRows: OwnCareRows | null | undefined): Promise<void> {
  const book = workshop.book
  if (!book || !session.isOwner) return
  const before = book.workshop
  await outbox.send(
    'workshop.save',
    { fields: { ...before, careRows: careRows ?? noCareRows } },
    { version: book.version, ...before },
    'own rows of care',
  )
}
</script>

<template>
  <section aria-labelledby="own-care-head" class="panel">
    <h2 id="own-care-head">Cleaned and oiled otherwise here</h2>
    <p class="quiet">
      What this shop has learned about agents, tools and oil. It goes before what ships, on every engine; a type may
      have rows of its own, which go before these, and the maker’s word goes before both.
    </p>
    <OwnCareRows :model-value="rows" :disabled="!session.isOwner" @update:model-value="keep" />
    <p v-if="!session.isOwner" class="quiet">The owner of the shop enters them.</p>
  </section>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 8px;
  margin-top: 26px;
  grid-template-columns: minmax(0, 1fr);
}
</style>
