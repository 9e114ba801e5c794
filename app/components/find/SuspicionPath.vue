<script setup lang="ts">
import type { SearchReport } from '~~/core/diagnosis/report/search-report'
import type { EngineDescription } from '~~/core/engine/description-schema'
import { suspicionGrade } from '~/drawing/suspicion-grade'
import { chanceInFigures } from '~~/work/chance-in-figures'

/** The current path shaded by suspicion; a component can be picked on it. */
const props = defineProps<{
  description: EngineDescription
  byPlace: SearchReport['byPlace']
  /** Parts that are off. */
  off: readonly string[]
}>()
const picked = defineModel<string | null>('picked', { required: true })
const suspicion = computed(() =>
  Object.fromEntries(props.byPlace.flatMap(({ components, chance }) => components.map((id) => [id, chance] as const))),
)
const driveSuspects = computed(() =>
  props.byPlace.filter(({ links, chance }) => links.length > 0 && suspicionGrade(chance) !== null),
)
const reachable = computed(() => {
  const off = new Set(props.off)
  const open = (id: string | null): boolean =>
    id === null ||
    (props.description.accesses.find((access) => access.id === id)?.off ?? []).every((group) =>
      group.some((part) => off.has(part)),
    )
  return new Set(props.description.nodes.filter((node) => open(node.access)).map((node) => node.id))
})
const placeWords = (place: string): string => place.replace(/^.*?\./, '').replaceAll('-', ' ')
</script>

<template>
  <section aria-label="Current path, shaded by suspicion" class="path">
    <CurrentPathDrawing
      :description="description"
      :states="{}"
      :switches="{}"
      :point="null"
      :selected="picked"
      :probes="[]"
      :suspicion="suspicion"
      :reachable="reachable"
      @select="picked = picked === $event ? null : $event"
    />
    <p class="quiet legend">
      <span class="mark high">◆</span> 40 % and more <span class="mark middle">●</span> 15 % and more
      <span class="mark low">○</span> 5 % and more. Dashed points cannot be reached as it stands.<template
        v-if="driveSuspects.length > 0"
      >
        Drive:
        {{ driveSuspects.map(({ place, chance }) => `${placeWords(place)} ${chanceInFigures(chance)}`).join(', ') }}.
      </template>
    </p>
  </section>
</template>

<style scoped>
.path {
  min-width: 0;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
.legend {
  margin-top: 4px;
}
.mark {
  margin-left: 10px;
  font-size: 1.05em;
}
.mark:first-child {
  margin-left: 0;
}
.high {
  color: var(--red);
}
.middle,
.low {
  color: var(--amber-ink);
}
</style>
