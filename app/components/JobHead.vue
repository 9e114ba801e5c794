<script setup lang="ts">
import { describeDue, showDay } from '~~/work/describe-due'
import type { JobBook } from '~~/messages/book'
import { engineName } from '~~/work/engine-name'
import { findScale } from '~~/core/measure/scales'
import { powers } from '~~/messages/vocabulary'

const props = defineProps<{ book: JobBook; slim?: boolean }>()
const scale = computed(() => (props.book.type.scaleId ? findScale(props.book.type.scaleId)?.name : null))
const due = computed(() => describeDue(props.book.job.dueOn, props.book.job.state))
</script>

<template>
  <header class="head" :class="{ slim }">
    <div class="tag">
      <svg viewBox="0 0 52 60" aria-hidden="true" class="string">
        <path d="M47 32C38 12 20 3 0 6" fill="none" stroke="currentColor" stroke-width="1.6" />
      </svg>
      <div class="number numeral">
        <span class="face">{{ book.job.number }}</span>
      </div>
    </div>
    <div class="who">
      <h1>
        <NuxtLink :to="`/engines/${book.engine.id}`">{{ engineName(book.engine, book.type) }}</NuxtLink>
      </h1>
      <p v-if="!slim" class="quiet">
        {{ book.type.maker }} {{ book.type.name
        }}<template v-if="book.engine.runningNumber && book.engine.nickname">
          · no. {{ book.engine.runningNumber }}</template
        >
        ·
        {{
          [
            scale,
            book.type.gaugeMm && `${book.type.gaugeMm} mm`,
            powers[book.type.power],
            `${book.type.nominalVolts} V`,
          ]
            .filter(Boolean)
            .join(', ')
        }}
        · <NuxtLink :to="`/owners/${book.owner.id}`">{{ book.owner.name }}</NuxtLink>
      </p>
      <p class="complaint" :class="{ quiet: slim }">{{ book.job.complaint }}</p>
    </div>
    <div class="state">
      <span v-if="book.job.state === 'waiting'" class="sign sign--care"
        >Waiting: {{ book.job.waitingFor || 'no reason noted' }}</span
      >
      <span v-else-if="book.job.state === 'handed-back'" class="sign sign--sound"
        >Handed back {{ showDay(book.job.handedBackAt) }}</span
      >
      <span v-if="due" :class="due.late ? 'sign sign--fault' : due.soon ? 'sign sign--care' : ''">{{ due.text }}</span>
      <span v-if="book.job.sentimental" class="sign sign--care"
        >Sentimental value: nothing risky, keep every original part{{
          book.job.consent ? '' : '; no consent noted'
        }}</span
      >
    </div>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  gap: 22px;
  align-items: flex-start;
  padding: 4px 0 12px;
}
.tag {
  position: relative;
  flex: none;
  padding: 6px 0 0 14px;
}
.string {
  position: absolute;
  left: -14px;
  top: -8px;
  width: 52px;
  height: 60px;
  color: var(--brass);
  z-index: 1;
}
.number {
  background: var(--sheet);
  clip-path: polygon(22px 0, 100% 0, 100% 100%, 0 100%, 0 22px);
  padding: 10px 20px 8px 34px;
  font-weight: 650;
  font-size: 40px;
  position: relative;
  box-shadow: inset 0 0 0 1px var(--rule);
}
.number::before {
  content: '';
  position: absolute;
  left: -1px;
  top: -1px;
  width: 23px;
  height: 23px;
  background: linear-gradient(
    135deg,
    transparent calc(50% - 0.7px),
    var(--rule) calc(50% - 0.7px),
    var(--rule) calc(50% + 0.8px),
    transparent calc(50% + 0.8px)
  );
}
.number::after {
  content: '';
  position: absolute;
  left: 14px;
  top: 13px;
  width: 11px;
  height: 11px;
  border-radius: 50%;
  background: var(--paper);
  box-shadow: inset 0 0 0 1.5px var(--brass);
}
.who {
  flex: 1;
  min-width: 0;
}
.who h1 a {
  color: inherit;
  text-decoration: none;
}
.who h1 a:hover {
  text-decoration: underline;
}
.who .quiet a {
  color: inherit;
}
.complaint {
  margin-top: 4px;
  max-width: 72ch;
}
.state {
  display: grid;
  gap: 4px;
  justify-items: end;
  text-align: right;
  font-weight: 600;
  font-size: 0.92rem;
  max-width: 300px;
  padding-top: 6px;
}
/* One strip: the tag, the name, what it is here for. */
.slim {
  align-items: center;
  padding: 0;
}
.slim .who {
  display: flex;
  gap: 4px 16px;
  align-items: baseline;
  flex-wrap: wrap;
}
.slim h1 {
  font-size: 1.3rem;
}
.slim .complaint {
  margin: 0;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 60ch;
}
.slim .number {
  font-size: 22px;
  padding: 6px 14px 5px 30px;
}
.slim .tag {
  padding-top: 2px;
}
.slim .state {
  display: flex;
  gap: 14px;
  max-width: none;
  padding: 0;
}
@media (max-width: 800px) {
  .head {
    flex-wrap: wrap;
    gap: 10px 16px;
  }
  .who {
    flex-basis: 60%;
  }
  .state {
    justify-items: start;
    text-align: left;
    max-width: none;
  }
  .number {
    font-size: 28px;
  }
}
</style>
