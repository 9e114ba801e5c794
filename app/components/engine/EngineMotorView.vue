<script setup lang="ts">
import { showDay } from '~~/work/describe-due'
import { judgeAgainstHistory } from '~~/core/motor/history-judgement'
import { historyFigureNames, type HistoryFigureName } from '~~/core/motor/motor-figures'
import { historyBefore, type FollowedSheet } from '~~/work/motor-history'
import { showFigure } from '~~/work/shown-figure'
import { stations, type StationId } from '~~/messages/vocabulary'

/** What this engine's motor measured over the years, figure by figure, with what is usual for its type. */
const props = defineProps<{ engineId: string }>()
const { past, failure } = useMotorPast(() => props.engineId)
const labels: Readonly<Record<HistoryFigureName, string>> = {
  resistance: 'Winding with brushes',
  backEmf: 'Magnet',
  noLoadCurrent: 'Draws, running free',
  keepsTurningDownTo: 'Turns on down to',
}
const latest = computed(() => past.value?.own.at(-1) ?? null)
const judgement = computed(() => {
  const before = past.value && latest.value ? historyBefore(past.value, latest.value.id) : null
  return before && latest.value ? judgeAgainstHistory(latest.value.figures, before) : null
})
const trends = computed(() =>
  historyFigureNames.flatMap((name) => {
    const sheets = (past.value?.own ?? []).filter((sheet) => sheet.figures[name])
    return sheets.length > 0
      ? [{ name, sheets, usual: judgement.value?.lines.find((line) => line.name === name)?.usual ?? null }]
      : []
  }),
)
const stationName = (id: StationId): string => stations.find((station) => station.id === id)?.name ?? id
const day = (sheet: FollowedSheet): string => showDay(new Date(sheet.at).toISOString())
</script>

<template>
  <div>
    <p v-if="failure" class="sign sign--care" role="alert">{{ failure }}</p>
    <template v-else-if="past">
      <p v-if="!past.prior" class="quiet">
        This machine has a wound field: winding, magnet and drag as followed here are those of a motor with a magnet.
      </p>
      <EmptyState
        v-else-if="past.own.length === 0"
        title="Nothing measured yet"
        text="A sheet with a meter at First run or Prove, with held and running readings, begins the line. From the second one on, it shows what changed."
      />
      <div v-else class="years">
        <div class="trends">
          <figure v-for="trend in trends" :key="trend.name">
            <figcaption>
              <h3>{{ labels[trend.name] }}</h3>
              <span class="figure">{{ showFigure(trend.sheets.at(-1)!.figures[trend.name]!) }}</span>
            </figcaption>
            <LazyMotorTrend :name="trend.name" :sheets="trend.sheets" :usual="trend.usual" />
          </figure>
        </div>
        <aside>
          <HistoryLines v-if="judgement" :judgement="judgement" :motor-since="past.motorSince" />
          <h3>The sheets</h3>
          <ul class="ruled-list">
            <li v-for="sheet in [...past.own].reverse()" :key="sheet.id">
              <NuxtLink :to="`/jobs/${sheet.jobId}/${sheet.station}`"
                >Job {{ sheet.jobNumber }}, {{ stationName(sheet.station) }}</NuxtLink
              ><span class="quiet">{{ day(sheet) }}</span>
            </li>
          </ul>
        </aside>
      </div>
    </template>
  </div>
</template>

<style scoped>
.years {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  gap: 32px;
  align-items: start;
}
.trends {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 20px 28px;
}
figure {
  margin: 0;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
figcaption {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: baseline;
  flex-wrap: wrap;
}
figcaption .figure {
  white-space: nowrap;
}
aside {
  display: grid;
  gap: 12px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
}
li a {
  min-height: var(--target);
  display: inline-flex;
  align-items: center;
}
@media (max-width: 960px) {
  .years {
    grid-template-columns: minmax(0, 1fr);
  }
  aside {
    order: -1;
  }
}
@media (max-width: 600px) {
  .trends {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
