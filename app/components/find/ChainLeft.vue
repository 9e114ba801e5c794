<script setup lang="ts">
import type { ChainLink, ChainStation, ChainStretch } from '~~/core/diagnosis/report/chain-left'
import { suspicionGrade } from '~/drawing/suspicion-grade'
import { chanceInFigures } from '~~/work/chance-in-figures'

/**
 * The chain from the rails to the wheels as one line: what is out of it is struck through and drawn in close, what is
 * left stands wide with its chance; what lies side by side stands under each other.
 */
const props = defineProps<{ chain: readonly ChainStretch[] }>()
const words: Readonly<Record<ChainStation, string>> = {
  track: 'Track',
  treads: 'Treads',
  contacts: 'Pickups',
  leads: 'Leads',
  board: 'Board',
  'motor-leads': 'To the motor',
  brushes: 'Brushes',
  armature: 'Armature',
  shaft: 'Shafts',
  gears: 'Gears',
  wheels: 'Wheels',
  beside: 'Beside it',
}
/** Less than this is out of it: two in a hundred. */
const LEAST = 0.02
type Judged = Pick<ChainLink, 'chance' | 'atAll' | 'found'>
const isLeft = ({ chance, found }: Judged): boolean => found || chance >= LEAST
const isOut = (judged: Judged): boolean => !isLeft(judged) && judged.atAll < LEAST
const grade = ({ chance, found }: Judged): string => (found ? 'found' : (suspicionGrade(chance) ?? 'faint'))
const stretches = computed(() =>
  props.chain.map((stretch) => ({
    ...stretch,
    left: isLeft(stretch),
    is: isLeft(stretch) ? grade(stretch) : isOut(stretch) ? 'out' : 'aside',
    // One place alone is its stretch; of several those that are left, and how many are not.
    named: stretch.links.length > 1 ? stretch.links.filter(isLeft).sort((one, other) => other.chance - one.chance) : [],
    out: stretch.links.length > 1 ? stretch.links.filter(isOut).length : 0,
  })),
)
const columns = computed(() =>
  stretches.value.map(({ left }) => (left ? 'minmax(76px, 2fr)' : 'minmax(max-content, 0.5fr)')).join(' '),
)
</script>

<template>
  <ol class="chain" :style="{ '--columns': columns }" aria-label="The chain, and what is left of it">
    <li v-for="stretch in stretches" :key="stretch.station" :class="stretch.is">
      <span class="words">{{ words[stretch.station] }}</span>
      <span class="line" aria-hidden="true"
        ><i :style="{ width: stretch.left ? `${stretch.chance * 100}%` : '0' }"
      /></span>
      <span class="figure">{{ stretch.found ? 'found' : stretch.left ? chanceInFigures(stretch.chance) : '' }}</span>
      <span v-if="!stretch.left" class="visually-hidden">{{
        stretch.is === 'out' ? 'out of it' : 'nothing points there'
      }}</span>
      <ul v-if="stretch.left && stretch.named.length > 0">
        <li v-for="link in stretch.named" :key="link.place" :class="grade(link)">
          {{ link.words }}
          <b v-if="stretch.named.length > 1 || stretch.out > 0">{{
            link.found ? 'found' : chanceInFigures(link.chance)
          }}</b>
        </li>
        <li v-if="stretch.out > 0" class="quiet">{{ stretch.out }} out of it</li>
      </ul>
    </li>
  </ol>
  <p class="quiet key">
    <span class="struck">Struck through</span>: out of it. Grey: nothing that was found points there, and it is as
    likely as ever.
  </p>
</template>

<style scoped>
.chain {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: var(--columns);
  align-items: start;
}
.chain > li {
  display: grid;
  grid-template-rows: 2.5em 14px auto auto;
  min-width: 0;
  padding-right: 10px;
}
.words {
  align-self: end;
  font-size: 0.92rem;
  line-height: 1.2;
  color: var(--ink);
}
.out .words,
.aside .words {
  color: var(--soft);
  font-size: 0.86rem;
  white-space: nowrap;
}
.out .words,
.struck {
  text-decoration: line-through;
}
.key {
  margin: 8px 0 0;
  font-size: 0.84rem;
}
/* The line runs on from stretch to stretch; what is suspected lies on it. */
.line {
  position: relative;
  margin-right: -10px;
  background: linear-gradient(var(--rule), var(--rule)) center / 100% 2px no-repeat;
}
.line i {
  position: absolute;
  inset: 2px auto 2px 0;
  max-width: calc(100% - 6px);
  background: var(--steel);
}
.line::before {
  content: '';
  position: absolute;
  left: 0;
  top: 2px;
  bottom: 2px;
  width: 2px;
  background: var(--rule);
}
.high > .line i,
.found > .line i {
  background: var(--red);
}
.middle > .line i {
  background: var(--amber);
}
.figure {
  font-size: 1.05rem;
  font-weight: 650;
  min-height: 1.4em;
}
.faint > .figure,
.low > .figure {
  color: var(--soft);
  font-weight: 500;
}
.chain ul {
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
  display: grid;
  gap: 3px;
  font-size: 0.84rem;
  line-height: 1.25;
  overflow-wrap: anywhere;
}
.chain ul li {
  padding-right: 6px;
}
.chain ul b {
  white-space: nowrap;
}
@container (max-width: 640px) {
  .chain {
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
  .chain > li {
    grid-template-columns: 104px minmax(0, 1fr) 58px;
    grid-template-rows: auto auto;
    column-gap: 8px;
    align-items: center;
  }
  .line {
    height: 14px;
    margin-right: 0;
  }
  .words {
    align-self: center;
  }
  .chain ul {
    grid-column: 2 / -1;
    padding-bottom: 4px;
  }
}
</style>
