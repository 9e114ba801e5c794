<script setup lang="ts">
import { problemSentence } from '~/stores/problem-sentence'
import { countChanges, type KnowledgeChanges } from '~~/core/knowledge/knowledge-changes'
import type { Knowledge } from '~~/core/knowledge/knowledge-schema'

/** A type's whole copy of the knowledge as a file, out and in; what is wrong in one is said with its place. */
const props = defineProps<{ copy: Knowledge; name: string; mayWrite: boolean }>()
/** A file was looked at and taken over. */
const emit = defineEmits<{ taken: [changes: KnowledgeChanges] }>()

function saveFile(): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([`${JSON.stringify(props.copy, null, 1)}\n`], { type: 'application/json' }))
  link.download = `knowledge-${props.name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
const flaws = ref<ReadonlyArray<{ readonly place: string; readonly message: string }>>([])
const brought = shallowRef<{ readonly name: string; readonly changes: KnowledgeChanges } | null>(null)
const MOST_BYTES = 4_000_000
async function readFile(event: Event): Promise<void> {
  const box = event.target as HTMLInputElement
  const file = box.files?.[0]
  box.value = ''
  flaws.value = []
  brought.value = null
  if (!file) return
  try {
    if (file.size > MOST_BYTES) throw new SyntaxError('too large')
    const found = await $fetch<{ flaws: typeof flaws.value; changes: KnowledgeChanges | null }>(
      '/api/knowledge/check',
      { method: 'POST', body: JSON.parse(await file.text()) as object },
    )
    flaws.value = found.flaws
    if (found.changes) brought.value = { name: file.name, changes: found.changes }
  } catch (error) {
    flaws.value = [
      {
        place: file.name,
        message: error instanceof SyntaxError ? 'This is no JSON file that can be read.' : problemSentence(error),
      },
    ]
  }
}
function takeOver(): void {
  if (brought.value) emit('taken', brought.value.changes)
  brought.value = null
}
</script>

<template>
  <div class="out-and-in">
    <div class="top">
      <slot />
      <div class="file">
        <v-btn variant="outlined" @click="saveFile">Save as a file</v-btn
        ><label v-if="mayWrite" class="bring"
          >Read a file<input
            type="file"
            accept="application/json,.json"
            aria-label="Read a knowledge file"
            @change="readFile"
        /></label>
      </div>
    </div>
    <div v-if="flaws.length > 0" class="flaws" role="alert">
      <p class="sign sign--fault">
        The file was not taken over: {{ flaws.length === 1 ? 'one thing is' : `${flaws.length} things are` }} wrong in
        it.
      </p>
      <ul>
        <li v-for="flaw in flaws.slice(0, 12)" :key="`${flaw.place}${flaw.message}`">
          <code>{{ flaw.place }}</code> {{ flaw.message }}
        </li>
      </ul>
    </div>
    <p v-if="brought" class="ask">
      <span>{{
        countChanges(brought.changes) === 0
          ? `${brought.name} says what ships: taking it over sets this type back.`
          : `${brought.name} differs from what ships in ${countChanges(brought.changes)} ${countChanges(brought.changes) === 1 ? 'row' : 'rows'}.`
      }}</span><v-btn color="primary" variant="flat" @click="takeOver">Take it over</v-btn
      ><v-btn variant="outlined" @click="brought = null">Leave it</v-btn>
    </p>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  gap: 24px;
  justify-content: space-between;
  align-items: flex-start;
}
.out-and-in {
  display: grid;
  gap: 12px;
}
.file {
  display: flex;
  gap: 10px;
  flex: none;
}
.bring {
  position: relative;
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  padding: 0 16px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  font-weight: 600;
  font-size: 0.875rem;
  cursor: pointer;
}
.bring input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
.bring:focus-within {
  outline: 2px solid var(--brass);
  outline-offset: 2px;
}
.flaws ul {
  margin: 6px 0 0;
  padding-left: 1.1em;
  display: grid;
  gap: 3px;
}
.flaws code {
  font-family: var(--mono);
  color: var(--soft);
  margin-right: 8px;
}
.ask {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
}
@media (max-width: 800px) {
  .top {
    flex-direction: column;
  }
}
</style>
