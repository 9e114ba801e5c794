<script setup lang="ts">
import { products } from '~~/core/care/lubrication-card'
import type { PointAmount } from '~~/core/knowledge/care/own-care-rows'
import type { LubricationPointKind } from '~~/core/knowledge/lubrication-points'
import { lubricationPointWords } from '~~/messages/vocabulary'

/** What goes to which kind of point: by the maker’s leaflet, or as this shop does it. */
const advice = defineModel<PointAmount[] | null | undefined>({ required: true })
defineProps<{ label: string; disabled?: boolean | undefined }>()
const rows = computed(() => advice.value ?? [])
const NONE = 'none'
const next = reactive({ point: null as LubricationPointKind | null, product: NONE, amount: '' })
function add(): void {
  const { point, product, amount } = next
  if (point === null) return
  advice.value = [
    ...rows.value.filter((row) => row.point !== point),
    { point, product: product === NONE ? null : product, amount: amount.trim() },
  ]
  Object.assign(next, { point: null, product: NONE, amount: '' })
}
</script>

<template>
  <div class="advice">
    <span class="label">{{ label }}</span>
    <ul v-if="rows.length > 0" class="ruled-list">
      <li v-for="row in rows" :key="row.point">
        <span>{{ lubricationPointWords[row.point] }}</span>
        <span>{{ row.product ?? 'none' }}{{ row.amount ? `, ${row.amount}` : '' }}</span>
        <button v-if="!disabled" type="button" class="plain" @click="advice = rows.filter((other) => other !== row)">
          Take off
        </button>
      </li>
    </ul>
    <div v-if="!disabled" class="add">
      <v-select
        v-model="next.point"
        :items="Object.entries(lubricationPointWords).map(([value, title]) => ({ value, title }))"
        label="Where"
      /><v-select
        v-model="next.product"
        :items="[
          { value: NONE, title: 'None' },
          ...products.map((product) => ({ value: product.id, title: product.id })),
        ]"
        label="What goes there"
      /><v-text-field v-model="next.amount" label="How much" placeholder="a small drop" /><v-btn
        variant="outlined"
        :disabled="next.point === null"
        @click="add"
        >Add</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.advice {
  display: grid;
  gap: 4px;
}
li {
  display: grid;
  grid-template-columns: 1fr 1fr max-content;
  gap: 12px;
  align-items: center;
}
.add {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr max-content;
  gap: 14px;
  align-items: end;
}
@media (max-width: 600px) {
  .add,
  li {
    grid-template-columns: 1fr;
  }
}
</style>
