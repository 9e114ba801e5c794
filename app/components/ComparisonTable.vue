<script setup lang="ts">
import type { ComparisonLine } from '~~/core/motor/sheet-comparison'
import { inBenchUnit, showFigure } from '~~/work/shown-figure'
import type { compareJob } from '~~/work/job-comparison'

/** Before against after: each pair on one scale with its uncertainty drawn, so that an overlap is seen. */
const props = defineProps<{ comparison: ReturnType<typeof compareJob> }>()
const words = {
  better: 'better',
  worse: 'worse',
  changed: 'changed',
  'no-measurable-change': 'no measurable change',
  'cannot-compare': 'cannot be compared',
} as const
const signs = {
  better: 'sign--sound',
  worse: 'sign--fault',
  changed: 'sign--ask',
  'no-measurable-change': 'sign--ask',
  'cannot-compare': 'sign--ask',
} as const

interface Bar {
  low: number
  high: number
  at: number
}
function barsOf(line: ComparisonLine): { before: Bar; after: Bar } | null {
  if (!line.before || !line.after) return null
  const figures = [inBenchUnit(line.before), inBenchUnit(line.after)]
  const top = Math.max(...figures.map((figure) => figure.high)) * 1.08
  const bar = (figure: { value: number; low: number; high: number }): Bar => ({
    low: (Math.max(0, figure.low) / top) * 100,
    high: (figure.high / top) * 100,
    at: (figure.value / top) * 100,
  })
  return { before: bar(figures[0]!), after: bar(figures[1]!) }
}
const rows = computed(() => props.comparison.lines.map((line) => ({ line, bars: barsOf(line) })))
const assumed = computed(() => props.comparison.lines.some((line) => line.repeatabilityAssumed))
</script>

<template>
  <p v-if="!comparison.before" class="quiet">
    There is no sheet from First run: nothing to compare with. Even “dead” is a starting point.
  </p>
  <p v-else-if="!comparison.after" class="quiet">Not proved yet: the same readings again at Prove.</p>
  <p v-else-if="rows.length === 0" class="quiet">
    The two sheets hold nothing measured in the same way: the same voltages, the same run or the same trial are needed
    on both.
  </p>
  <div v-else>
    <div v-for="{ line, bars } in rows" :key="line.code" class="row">
      <div class="what">{{ line.label }}</div>
      <div v-if="bars && line.before && line.after" class="bars">
        <div class="bar">
          <i class="span" :style="{ left: `${bars.before.low}%`, width: `${bars.before.high - bars.before.low}%` }" /><i
            class="ring"
            :style="{ left: `${bars.before.at}%` }"
          />
        </div>
        <div class="bar after">
          <i class="span" :style="{ left: `${bars.after.low}%`, width: `${bars.after.high - bars.after.low}%` }" /><i
            class="dot"
            :style="{ left: `${bars.after.at}%` }"
          />
        </div>
      </div>
      <div v-else class="sentence">{{ line.sentence }}</div>
      <div class="figures figure">
        <template v-if="line.before && line.after"
          ><span class="was">{{ showFigure(line.before) }}</span
          ><span class="now">{{ showFigure(line.after) }}</span></template
        >
      </div>
      <div class="sign" :class="signs[line.verdict]">{{ words[line.verdict] }}</div>
    </div>
    <p class="quiet foot">
      Ring: before. Dot: after. The bars are the 95 % uncertainty, meter and repeatability together<template
        v-if="assumed"
        >; where fewer than three readings were repeated, 5 % is taken for the repeatability</template
      >.
    </p>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(150px, 1.1fr) minmax(120px, 1fr) minmax(210px, 1.1fr) minmax(130px, 0.7fr);
  gap: 16px;
  border-top: 1px solid var(--rule);
  padding: 10px 0;
  align-items: center;
}
.what {
  font-weight: 600;
}
.sentence {
  grid-column: span 2;
}
.sentence + .figures {
  display: none;
}
.bar {
  position: relative;
  height: 16px;
}
.bar::before {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  top: 8px;
  border-top: 1px solid var(--rule);
}
.span {
  position: absolute;
  top: 5px;
  height: 7px;
  background: color-mix(in srgb, var(--steel) 45%, transparent);
  min-width: 2px;
}
.after .span {
  background: color-mix(in srgb, var(--green) 55%, transparent);
}
.ring,
.dot {
  position: absolute;
  top: 3px;
  width: 11px;
  height: 11px;
  margin-left: -5px;
  border-radius: 50%;
}
.ring {
  border: 2px solid var(--steel);
  background: var(--paper);
}
.dot {
  background: var(--green);
}
.figures {
  display: grid;
  font-size: 0.95rem;
}
.was {
  color: var(--soft);
}
.now {
  font-weight: 600;
}
.sign {
  font-weight: 600;
  font-size: 0.92rem;
}
.foot {
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
@media (max-width: 900px) {
  .row {
    grid-template-columns: 1fr 1fr;
  }
  .sentence {
    grid-column: span 1;
  }
}
</style>
