<script setup lang="ts">
/** Two photographs laid over each other: the slider wipes from one to the other. */
const props = defineProps<{ under: { id: string; words: string }; over: { id: string; words: string } }>()
const share = ref(50)
const clip = computed(() => ({ clipPath: `inset(0 0 0 ${share.value}%)` }))
const line = computed(() => ({ left: `${share.value}%` }))
</script>

<template>
  <div class="laid">
    <div class="stage">
      <img :src="`/api/photographs/${props.under.id}`" :alt="props.under.words" />
      <img class="top" :src="`/api/photographs/${props.over.id}`" :alt="props.over.words" :style="clip" />
      <span class="edge" :style="line" />
    </div>
    <label class="slider">
      <span class="quiet">{{ props.under.words }}</span>
      <input v-model.number="share" type="range" min="0" max="100" aria-label="How much of which" />
      <span class="quiet">{{ props.over.words }}</span>
    </label>
  </div>
</template>

<style scoped>
.stage {
  position: relative;
  height: 58vh;
  background: var(--sunk);
  overflow: hidden;
}
.stage img {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.edge {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 3px;
  margin-left: -1.5px;
  background: var(--brass);
}
.slider {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(140px, 2fr) minmax(0, 1fr);
  gap: 14px;
  align-items: center;
}
.slider span:last-child {
  text-align: right;
}
input {
  accent-color: var(--brass);
  min-height: var(--target);
}
</style>
