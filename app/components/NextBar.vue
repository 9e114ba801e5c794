<script setup lang="ts">
/** The next action: the largest thing on the screen, on Space or the foot pedal. */
const next = currentNextAction()
</script>

<template>
  <div v-if="next" class="bar not-printed">
    <div class="inside">
      <button v-if="next.back" type="button" class="back" @click="next.back()">Back <kbd>⌫</kbd></button>
      <button type="button" class="next" @click="next.run()">
        <span>{{ unref(next.label) }}</span><kbd>Space</kbd>
      </button>
    </div>
  </div>
</template>

<style scoped>
.bar {
  position: fixed;
  left: 0;
  right: 0;
  bottom: 0;
  z-index: 900;
  background: var(--paper);
  border-top: 1px solid var(--rule);
}
.inside {
  max-width: 1440px;
  margin: 0 auto;
  padding: 10px 28px;
  display: flex;
  gap: 12px;
  justify-content: flex-end;
}
.next {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 24px;
  background: var(--green);
  color: var(--on-green);
  font-weight: 650;
  font-size: 1.12rem;
  padding: 0 24px;
  min-height: 54px;
  min-width: min(420px, 60vw);
  border-radius: 3px;
}
.next span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.next kbd {
  flex: none;
}
.next:hover {
  filter: brightness(1.12);
}
.back {
  border: 1px solid var(--rule);
  padding: 0 18px;
  min-height: 54px;
  font-weight: 600;
  border-radius: 3px;
  display: flex;
  align-items: center;
  gap: 10px;
  margin-right: auto;
}
.back:hover {
  background: var(--sheet);
}
@media (max-width: 600px) {
  .inside {
    padding: 8px 12px;
  }
  .next {
    padding: 0 16px;
    font-size: 1rem;
    flex: 1;
    min-width: 0;
    gap: 10px;
  }
  .back {
    padding: 0 12px;
  }
  .back kbd {
    display: none;
  }
}
</style>
