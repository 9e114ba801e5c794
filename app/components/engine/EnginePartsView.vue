<script setup lang="ts">
import type { EngineDescription, Hazard, Part, Tool } from '~~/core/engine/description-schema'
import { isNoWay, planAccess } from '~~/core/strip/minimal-removal'

/** Every part with what it is made of and how it is held; and the shortest way in to a place. */
const props = defineProps<{ description: EngineDescription }>()

const search = ref('')
const target = ref('')
watch(
  () => props.description,
  (description) => {
    target.value =
      (
        (['commutator', 'brushes', 'terminals'] as const)
          .map((place) => description.accesses.find(({ leadsTo }) => leadsTo?.to === place))
          .find(Boolean) ?? description.accesses[0]
      )?.id ?? ''
  },
  { immediate: true },
)
const plan = computed(() => (target.value ? planAccess(props.description, target.value) : null))
const way = ref<'in' | 'back'>('in')
const partOf = (id: string): Part | undefined => props.description.parts.find((part) => part.id === id)
const groups = computed(() =>
  props.description.units
    .map((unit) => ({
      unit,
      parts: props.description.parts.filter((part) => part.unit === unit.id && matches(part)),
    }))
    .filter((group) => group.parts.length > 0),
)
const matches = (part: Part): boolean =>
  search.value
    .trim()
    .toLowerCase()
    .split(/\s+/)
    .every((word) =>
      `${part.name} ${part.place} ${part.heldBy} ${part.materials.map(materialWord).join(' ')}`
        .toLowerCase()
        .includes(word),
    )
const materialWord = (material: string): string => material.replaceAll('-', ' ')
const minutes = (value: number): string => (value < 1 ? '½' : String(Math.round(value)))
const hazardWords: Readonly<Record<Hazard, string>> = {
  'flies-away': 'Springs and clips fly: a finger or cloth over them',
  eyes: 'Glasses on',
  brittle: 'Old plastic and Phenolic resin break: warm, slowly, no force',
  'hot-iron': 'Hot iron and fumes: stand, air, wash hands',
  'strong-magnet': 'Strong magnet: fingers, and no pacemaker near it',
  sharp: 'Sharp edges',
  'small-parts': 'Small parts: a dish, covered for brass',
}
const toolWords = (list: readonly Tool[]): string =>
  list
    .filter((tool) => tool !== 'fingers')
    .map((tool) => tool.replaceAll('-', ' '))
    .join(', ')
const risky = (part: Part): string => {
  const { removal } = part
  if (!removal) return 'stays'
  if (removal.leaveAlone) return 'leave alone'
  return removal.risk >= 0.03 ? `1 in ${Math.round(1 / removal.risk)} breaks` : ''
}
</script>

<template>
  <div class="parts">
    <div>
      <v-text-field v-model="search" label="Find a part, a material, a place" clearable class="search" />
      <section v-for="group in groups" :key="group.unit.id">
        <h2>
          {{ group.unit.name }} <span class="quiet">{{ group.parts.length }} parts</span>
        </h2>
        <table>
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Made of</th>
              <th scope="col">Where and how held</th>
              <th scope="col">Coming off</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="part in group.parts" :key="part.id">
              <th scope="row">{{ part.name }}</th>
              <td>{{ part.materials.map(materialWord).join(', ') }}</td>
              <td class="quiet">
                {{ [part.place, part.heldBy && `held by ${part.heldBy}`].filter(Boolean).join('; ') }}
              </td>
              <td class="quiet" :title="part.removal?.leaveAlone">
                {{
                  [part.removal && !part.removal.leaveAlone ? `${minutes(part.removal.minutes)} min` : '', risky(part)]
                    .filter(Boolean)
                    .join(', ')
                }}
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <p v-if="groups.length === 0" class="quiet">No part fits. Try fewer letters.</p>
    </div>
    <aside>
      <section class="way">
        <h2>The way in</h2>
        <v-select
          v-model="target"
          :items="description.accesses.map((access) => ({ value: access.id, title: access.name }))"
          label="To reach"
        />
        <template v-if="plan && !isNoWay(plan)">
          <p v-if="plan.order.length === 0" class="sign sign--sound">Reached as it stands.</p>
          <template v-else>
            <p>
              <span class="numeral">{{ minutes(plan.minutes) }}</span> min there, {{ minutes(plan.refitMinutes) }} back;
              {{ (plan.risk * 100).toFixed(0) }} % that something breaks.
            </p>
            <p v-if="toolWords(plan.tools)" class="quiet">Tools: {{ toolWords(plan.tools) }}</p>
            <ul v-if="plan.hazards.length" class="caution">
              <li v-for="hazard in plan.hazards" :key="hazard">{{ hazardWords[hazard] }}.</li>
            </ul>
            <div class="ways">
              <button
                v-for="entry in ['in', 'back'] as const"
                :key="entry"
                type="button"
                :class="{ on: way === entry }"
                :aria-pressed="way === entry"
                @click="way = entry"
              >
                {{ entry === 'in' ? 'In' : 'Back together' }}
              </button>
            </div>
            <ol v-if="way === 'in'">
              <li v-for="id in plan.order" :key="id">
                <strong>{{ partOf(id)?.name }}</strong><span v-if="partOf(id)?.place" class="quiet block">{{
                  partOf(id)?.place
                }}</span>
              </li>
            </ol>
            <ol v-else>
              <li v-for="id in [...plan.order].reverse()" :key="id">
                <strong>{{ partOf(id)?.name }}</strong><span v-if="partOf(id)?.removal?.wayBack" class="quiet block">{{
                  partOf(id)?.removal?.wayBack
                }}</span>
              </li>
            </ol>
          </template>
        </template>
        <p v-else-if="plan" class="sign sign--care">{{ plan.message }}</p>
      </section>
      <EngineAssemblyCheck :description="description" />
    </aside>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  gap: 32px;
  align-items: start;
}
.search {
  max-width: 420px;
  margin-bottom: 8px;
}
h2 {
  margin: 14px 0 4px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.92rem;
}
th,
td {
  text-align: left;
  padding: 7px 14px 7px 0;
  vertical-align: top;
}
tbody tr {
  border-top: 1px solid var(--rule);
}
thead th {
  font-size: 0.8rem;
  color: var(--soft);
  font-weight: 550;
}
tbody th {
  font-weight: 600;
  width: 34%;
}
td:nth-child(2) {
  width: 22%;
}
td:last-child {
  white-space: nowrap;
  padding-right: 0;
  text-align: right;
}
thead th:last-child {
  text-align: right;
  padding-right: 0;
}
aside {
  position: sticky;
  top: 76px;
  max-height: calc(100vh - 190px);
  overflow-y: auto;
  display: grid;
  gap: 20px;
}
.way {
  border-top: 3px solid var(--green);
  padding-top: 6px;
  display: grid;
  gap: 10px;
}
.way h2 {
  margin: 0;
}
.caution {
  list-style: none;
  margin: 0;
  display: grid;
  gap: 4px;
}
.block {
  display: block;
}
.ways {
  display: flex;
  gap: 6px;
}
.ways button {
  border: 1px solid var(--rule);
  min-height: var(--target);
  padding: 0 14px;
  font-weight: 600;
  background: var(--sheet);
  flex: 1;
  text-align: center;
}
.ways .on {
  border-color: var(--brass);
  box-shadow: inset 0 -3px 0 var(--brass);
}
ol {
  margin: 0;
  padding-left: 26px;
  display: grid;
  gap: 6px;
}
@media (max-width: 960px) {
  .parts {
    grid-template-columns: minmax(0, 1fr);
  }
  .parts aside {
    order: -1;
    position: static;
    max-height: none;
  }
  td:nth-child(3),
  thead th:nth-child(3) {
    display: none;
  }
}
</style>
