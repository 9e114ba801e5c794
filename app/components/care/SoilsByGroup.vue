<script setup lang="ts">
import type { CleaningGroup } from '~~/core/care/cleaning-groups'
import { atStart } from '~~/core/engine/name-in-sentence'
import { careKnowledge } from '~~/core/knowledge/care/care-knowledge'

/** What is dirty with what, group by group: one key each, what is likely offered first. */
const props = defineProps<{
  groups: readonly CleaningGroup[]
  soils: ReadonlyMap<string, readonly string[]>
  suggested: ReadonlyMap<string, readonly string[]>
  mayWrite: boolean
}>()
const emit = defineEmits<{ say: [group: CleaningGroup, soils: string[]]; done: [] }>()

const at = ref(0)
const current = computed(() => props.groups[at.value] ?? null)
const possible = (group: CleaningGroup) =>
  careKnowledge.soils.filter((soil) =>
    careKnowledge.ways.some((row) => row.soil === soil.id && row.subjects.includes(group.subject)),
  )
/** Only the group in hand shows all there is: the others what was said of them, or is likely. */
const shownSoils = (group: CleaningGroup) =>
  group === current.value
    ? possible(group)
    : possible(group).filter((soil) =>
        props.soils.has(group.id) ? said(group).includes(soil.id) : likely(group).includes(soil.id),
      )
const said = (group: CleaningGroup): readonly string[] => props.soils.get(group.id) ?? []
const likely = (group: CleaningGroup): readonly string[] => props.suggested.get(group.id) ?? []

function toggle(group: CleaningGroup, soil: string): void {
  at.value = props.groups.indexOf(group)
  if (!props.mayWrite) return
  const now = said(group)
  emit('say', group, now.includes(soil) ? now.filter((other) => other !== soil) : [...now, soil])
}
/** What is likely is taken over with Space where nobody has said otherwise. */
function next(): void {
  const group = current.value
  if (!group) return emit('done')
  if (props.mayWrite && !props.soils.has(group.id) && likely(group).length > 0) emit('say', group, [...likely(group)])
  if (at.value + 1 >= props.groups.length) return emit('done')
  at.value += 1
}
function back(): void {
  at.value = Math.max(0, at.value - 1)
}
const rows = ref<HTMLElement[]>([])
watch(at, (index) => rows.value[index]?.scrollIntoView({ block: 'nearest' }))

useBenchKeys([
  ...Array.from({ length: 9 }, (_, index) => ({
    key: String(index + 1),
    label: `Soil ${index + 1} of the group in hand`,
    run: () => {
      const group = current.value
      const soil = group && possible(group)[index]
      if (group && soil) toggle(group, soil.id)
    },
  })),
  { key: 'ArrowDown', label: 'Next group', run: () => (at.value = Math.min(props.groups.length - 1, at.value + 1)) },
  { key: 'ArrowUp', label: 'Group before', run: back },
])
useNextAction({
  label: computed(() => {
    const group = current.value
    if (!group) return 'To the card'
    const asSuggested = !props.soils.has(group.id) && likely(group).length > 0
    const last = at.value + 1 >= props.groups.length
    return atStart([asSuggested ? 'as suggested' : '', last ? 'to the card' : 'next group'].filter(Boolean).join(', '))
  }),
  run: next,
  back,
})
</script>

<template>
  <section aria-label="What is dirty with what" class="soils">
    <h2>What is dirty, and with what?</h2>
    <ul>
      <li
        v-for="(group, index) in groups"
        :key="group.id"
        ref="rows"
        :class="{ current: index === at }"
        :aria-current="index === at ? 'step' : undefined"
        @click="at = index"
      >
        <span class="name"
          ><b>{{ group.words }}</b>
          <span v-if="group.pieces > 1 && group.subject !== 'everything'" class="quiet">{{ group.pieces }}</span></span
        >
        <span class="choices">
          <button
            v-for="(soil, number) in shownSoils(group)"
            :key="soil.id"
            type="button"
            :aria-pressed="said(group).includes(soil.id)"
            :class="{ likely: !soils.has(group.id) && likely(group).includes(soil.id) }"
            :disabled="!mayWrite"
            :title="soil.looks"
            @click.stop="toggle(group, soil.id)"
          >
            <kbd v-if="index === at">{{ number + 1 }}</kbd>{{ soil.words
            }}<span v-if="!soils.has(group.id) && likely(group).includes(soil.id)" class="visually-hidden"
              >, likely</span
            >
          </button>
          <span v-if="index !== at && shownSoils(group).length === 0" class="quiet nothing">{{
            soils.has(group.id) ? 'clean' : '–'
          }}</span>
        </span>
      </li>
    </ul>
    <p class="quiet">Dashed: likely, by what was found and where it ran. Space takes it over.</p>
  </section>
</template>

<style scoped>
.soils {
  display: grid;
  gap: 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr);
  gap: 4px 14px;
  padding: 4px 10px 4px 7px;
  border-top: 1px solid var(--rule);
  border-left: 3px solid transparent;
  align-items: center;
}
.name .quiet {
  margin-left: 6px;
}
.nothing {
  min-height: 36px;
  display: inline-flex;
  align-items: center;
  padding: 0 9px;
}
.current {
  background: var(--sheet);
  border-left-color: var(--brass);
}
@media (max-width: 700px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 6px;
}
button {
  min-height: 36px;
  padding: 0 9px;
  border: 1px solid transparent;
  border-radius: 3px;
  color: var(--soft);
  display: inline-flex;
  gap: 6px;
  align-items: center;
  font-size: 0.92rem;
}
.current button {
  min-height: var(--target);
}
button.likely {
  border: 1px dashed var(--brass);
  color: var(--ink);
}
button[aria-pressed='true'] {
  background: var(--brass);
  color: #1d1405;
  font-weight: 650;
}
</style>
