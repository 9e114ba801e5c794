<script setup lang="ts">
import type { JobBook, SisterPhotograph } from '~~/messages/book'
import type { PhotographSubject } from '~~/messages/photograph-entries'

/** The photographs of the part in hand: ours first, then a sister engine's, which is the best drawing there is. */
const props = defineProps<{ book: JobBook; about: PhotographSubject; words: string }>()
const viewer = usePhotographViewer()

const part = computed(() => (props.about.kind === 'part' ? props.about.part : ''))
const own = computed(() =>
  props.book.photographs.filter(({ about }) =>
    about?.kind === 'part'
      ? about.part === part.value
      : about !== null && props.about.kind === 'finding' && about.finding === props.about.finding,
  ),
)
const sisters = shallowRef<readonly SisterPhotograph[]>([])
watch(
  part,
  async (asked) => {
    sisters.value = []
    if (asked === '') return
    try {
      const found = await $fetch<SisterPhotograph[]>(`/api/jobs/${props.book.job.id}/sister-photographs`, {
        query: { part: asked },
      })
      if (part.value === asked) sisters.value = found
    } catch {
      // Without them the step goes on: they are a help, not part of it.
    }
  },
  { immediate: true },
)
</script>

<template>
  <ul v-if="own.length + sisters.length > 0" class="pictures" :aria-label="`Photographs: ${words}`">
    <li v-for="photograph in own" :key="photograph.id">
      <span v-if="photograph.width === 0" class="coming quiet">on the way</span>
      <button v-else type="button" @click="viewer.open(photograph.id, () => sisters)">
        <img
          :src="`/api/photographs/${photograph.id}/thumbnail`"
          :alt="photograph.caption || `${words}, in this job`"
        /><span v-if="photograph.marks.length > 0" class="quiet">{{ photograph.marks.length }} marked</span>
      </button>
    </li>
    <li v-for="photograph in sisters" :key="photograph.id" class="sister">
      <button type="button" @click="viewer.open(photograph.id, () => sisters)">
        <img
          :src="`/api/photographs/${photograph.id}/thumbnail`"
          :alt="photograph.caption || `${words}, on ${photograph.engine}`"
        /><span class="quiet">{{ photograph.engine }}, {{ photograph.jobNumber }}</span>
      </button>
    </li>
  </ul>
</template>

<style scoped>
.pictures {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  list-style: none;
  margin: 0;
  padding: 0;
}
button {
  display: grid;
  gap: 2px;
  font-size: 0.8rem;
}
img,
.coming {
  display: block;
  width: 116px;
  height: 84px;
  object-fit: cover;
  border: 1px solid var(--rule);
  border-radius: 2px;
}
.coming {
  display: grid;
  place-items: center;
}
.sister img {
  border: 2px dashed var(--brass);
}
</style>
