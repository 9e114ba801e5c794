<script setup lang="ts">
import { schools } from '~~/core/knowledge/schools'
import { optionOf, type School } from '~~/core/knowledge/schools-of-practice'

/** Where practitioners disagree: what this shop holds with. It changes what is advised, not what is true. */
const workshop = useWorkshopStore()
const outbox = useOutbox()
const session = useSessionStore()
const chosen = computed(() => workshop.book?.workshop.schools ?? {})
const held = (school: School): string => optionOf(school, chosen.value).id

async function hold(school: School, option: string): Promise<void> {
  const book = workshop.book
  if (!book || !session.isOwner || held(school) === option) return
  const before = book.workshop
  await outbox.send(
    'workshop.save',
    { fields: { ...before, schools: { ...chosen.value, [school.id]: option } } },
    { version: book.version, ...before },
    'schools of practice',
  )
}
</script>

<template>
  <section class="schools" aria-labelledby="schools-head">
    <h2 id="schools-head">Schools of practice</h2>
    <p class="quiet">
      Where good repairers disagree. What you hold with changes how a remedy is done, what it takes and what it warns
      of; the chances and the tests stay the same. The first is what ships.
    </p>
    <ul class="ruled-list">
      <li v-for="school in schools" :key="school.id" class="school">
        <h3 :id="`school-${school.id}`">{{ school.question }}</h3>
        <div role="radiogroup" :aria-labelledby="`school-${school.id}`" class="options">
          <button
            v-for="option in school.options"
            :key="option.id"
            type="button"
            role="radio"
            :aria-checked="held(school) === option.id"
            :disabled="!session.isOwner && held(school) !== option.id"
            class="option"
            @click="hold(school, option.id)"
          >
            <span class="mark" aria-hidden="true">{{ held(school) === option.id ? '●' : '○' }}</span>
            <b>{{ option.name }}</b>
            <span class="quiet">{{ option.because }}</span>
          </button>
        </div>
      </li>
    </ul>
    <p v-if="!session.isOwner" class="quiet">The owner of the shop chooses.</p>
  </section>
</template>

<style scoped>
.schools {
  display: grid;
  gap: 8px;
  margin-top: 26px;
  grid-template-columns: minmax(0, 1fr);
}
.school {
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr);
  gap: 18px;
  align-items: start;
  padding: 6px 0;
}
.school h3 {
  font-size: 1rem;
  font-weight: 600;
  padding-top: 11px;
}
.options {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 4px 14px;
}
.option {
  display: grid;
  grid-template-columns: 1.35em minmax(0, 1fr);
  gap: 1px 0;
  text-align: left;
  align-content: start;
  padding: 10px 10px 10px 12px;
  min-height: var(--target);
  border-left: 3px solid transparent;
}
.option b {
  font-weight: 500;
}
.option .quiet {
  grid-column: 2;
  font-size: 0.9rem;
}
.option[aria-checked='true'] {
  border-color: var(--brass);
}
.option[aria-checked='true'] b {
  font-weight: 650;
}
.option:not(:disabled):hover b {
  text-decoration: underline;
  text-decoration-color: var(--brass);
  text-underline-offset: 3px;
}
.mark {
  color: var(--brass-ink);
}
@media (max-width: 1000px) {
  .school {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
@media (max-width: 700px) {
  .options {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
