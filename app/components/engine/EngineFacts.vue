<script setup lang="ts">
import { showDay } from '~~/work/describe-due'
import { emptyType, emptyEngine } from '~/forms/empty-entries'
import { plainCopy } from '~/forms/plain-copy'
import { v7 as newId } from 'uuid'
import { findScale } from '~~/core/measure/scales'
import type { ComponentRow, EngineBook } from '~~/messages/book'
import type { DescribedEngine } from '~~/work/describe-engine'
import type { ComponentFields, EngineFields, EngineTypeFields } from '~~/messages/book-entries'
import { componentKinds, constructions, lubricationPointWords, motorKinds, powers } from '~~/messages/vocabulary'

/** What the book knows of one engine: this example, what is fitted, how it is made, its type and its jobs. */
const props = defineProps<{ book: EngineBook; described: DescribedEngine }>()
const outbox = useOutbox()
const session = useSessionStore()
const id = computed(() => props.book.engine.id)
const editing = ref<'engine' | 'type' | 'component' | null>(null)
const engine = ref<Omit<EngineFields, 'ownerId' | 'typeId'>>(emptyEngine())
const type = ref<EngineTypeFields>(emptyType())
const component = ref<ComponentFields & { id: string; version: number }>(newComponent())
const ownCare = computed(() => {
  const rows = props.book.type.careRows
  return !!rows && rows.rules.length + rows.ways.length + rows.amounts.length > 0
})
const begun = shallowRef<Record<string, unknown>>({})
const engineCheck = useFormCheck('engine.save')
const typeCheck = useFormCheck('engine-type.save')
const componentCheck = useFormCheck('component.save')
watch(editing, () => {
  for (const { forget } of [engineCheck, typeCheck, componentCheck]) forget()
})

function newComponent(): ComponentFields & { id: string; version: number } {
  return { id: newId(), version: 0, kind: 'motor', description: '', fittedOn: null, removedOn: null, notes: '' }
}

function edit(what: 'engine' | 'type', shown: EngineBook): void {
  if (what === 'engine') {
    const { nickname, runningNumber, marks, condition, history, differences, units } = shown.engine
    engine.value = {
      nickname,
      runningNumber,
      marks,
      condition,
      history,
      differences,
      units: units.map((unit) => ({ ...unit })),
    }
    begun.value = plainCopy({
      ...engine.value,
      ownerId: shown.engine.ownerId,
      typeId: shown.engine.typeId,
      units: units.map((unit) => ({ ...unit })),
    })
  } else {
    const { id: _id, version: _version, templateId: _template, adaptations: _adaptations, ...fields } = shown.type
    type.value = { ...fields }
    begun.value = { ...fields }
  }
  editing.value = what
}

async function keepEngine(shown: EngineBook): Promise<void> {
  const fields = {
    ...toRaw(engine.value),
    units: engine.value.units.map((unit) => ({ ...unit })),
    ownerId: shown.engine.ownerId,
    typeId: shown.engine.typeId,
  }
  if (!(await engineCheck.fits({ id: id.value, fields }))) return
  await outbox.send('engine.save', { id: id.value, fields }, { version: shown.engine.version, ...begun.value })
  editing.value = null
}

async function keepType(shown: EngineBook): Promise<void> {
  const written = { id: shown.type.id, fields: plainCopy(type.value) }
  if (!(await typeCheck.fits(written))) return
  await outbox.send('engine-type.save', written, { version: shown.type.version, ...begun.value })
  editing.value = null
}

function editComponent(row: ComponentRow | null): void {
  component.value = row
    ? {
        id: row.id,
        version: row.version,
        kind: row.kind,
        description: row.description,
        fittedOn: row.fittedOn,
        removedOn: row.removedOn,
        notes: row.notes,
      }
    : newComponent()
  editing.value = 'component'
}

async function keepComponent(): Promise<void> {
  const { id: componentId, version, ...fields } = component.value
  if (!fields.description.trim()) return
  const written = {
    id: componentId,
    engineId: id.value,
    fields: { ...fields, fittedOn: fields.fittedOn || null, removedOn: fields.removedOn || null },
  }
  if (!(await componentCheck.fits(written))) return
  await outbox.send('component.save', written, version ? { version } : undefined)
  editing.value = null
}
</script>

<template>
  <div>
    <div class="columns columns--two">
      <section>
        <div class="head">
          <h2>This example</h2>
          <v-btn v-if="session.mayWrite" variant="outlined" @click="edit('engine', book)">Change</v-btn>
        </div>
        <dl class="facts">
          <dt>Marks</dt>
          <dd>{{ book.engine.marks || 'None noted' }}</dd>
          <dt>History</dt>
          <dd>{{ book.engine.history || 'Not known' }}</dd>
          <dt>Else differs in</dt>
          <dd>{{ book.engine.differences || 'Nothing else noted' }}</dd>
          <dt>Units</dt>
          <dd>
            <span v-for="unit in book.engine.units" :key="unit.id" class="unit"
              >{{ unit.name }}{{ unit.powered ? ', powered' : '' }}{{ unit.marks ? ` (${unit.marks})` : '' }}</span
            >
          </dd>
        </dl>
        <div class="head">
          <h2>Fitted</h2>
          <v-btn v-if="session.mayWrite" variant="outlined" @click="editComponent(null)"
            >Enter a motor or decoder</v-btn
          >
        </div>
        <p v-if="book.components.length === 0" class="quiet">
          Motor and decoder stand here with their dates once they are entered.
        </p>
        <ul v-else class="ruled-list">
          <li v-for="row in book.components" :key="row.id" class="component" :class="{ gone: row.removedOn }">
            <span class="label">{{ componentKinds[row.kind] }}</span><span
              ><strong>{{ row.description }}</strong
              ><span class="quiet">
                {{
                  [
                    row.fittedOn && `fitted ${showDay(row.fittedOn)}`,
                    row.removedOn && `removed ${showDay(row.removedOn)}`,
                    row.notes,
                  ]
                    .filter(Boolean)
                    .join(', ')
                }}</span
              ></span
            ><v-btn v-if="session.mayWrite" size="small" variant="outlined" @click="editComponent(row)">Change</v-btn>
          </li>
        </ul>
        <EngineDifferences :book="book" :described="described" />
      </section>
      <section>
        <div class="head">
          <h2>Its type</h2>
          <v-btn v-if="session.mayWrite" variant="outlined" @click="edit('type', book)">Change the type</v-btn>
        </div>
        <dl class="facts">
          <dt>Made</dt>
          <dd>{{ [book.type.yearsMade, book.type.variantMarks].filter(Boolean).join(', ') || 'Not known' }}</dd>
          <dt>Gauge and scale</dt>
          <dd>
            {{
              [
                book.type.gaugeMm && `${book.type.gaugeMm} mm between the rails`,
                book.type.scaleId && findScale(book.type.scaleId)?.name,
              ]
                .filter(Boolean)
                .join(', ') || 'Not known'
            }}
          </dd>
          <dt>Power</dt>
          <dd>{{ powers[book.type.power] }}, {{ book.type.nominalVolts }} V</dd>
          <dt>Construction</dt>
          <dd>{{ constructions[book.type.construction] }}</dd>
          <dt>Motor</dt>
          <dd>{{ motorKinds[book.type.motorKind] }}{{ book.type.poles ? `, ${book.type.poles} poles` : '' }}</dd>
          <dt>Gear and wheel</dt>
          <dd>
            {{
              [
                book.type.gearRatio && `${book.type.gearRatio} : 1`,
                book.type.wheelDiameterMm && `${book.type.wheelDiameterMm} mm`,
              ]
                .filter(Boolean)
                .join(', ') || 'Not known: a timed run then gives no motor speed'
            }}
          </dd>
          <dt>Pickup</dt>
          <dd>{{ book.type.pickupLayout || 'Not noted' }}</dd>
          <template v-if="book.type.makersAdvice?.length"
            ><dt>The maker’s own word</dt>
            <dd>
              {{
                book.type.makersAdvice
                  .map(
                    ({ point, product, amount }) =>
                      `${lubricationPointWords[point]}: ${product ?? 'none'}${amount ? `, ${amount}` : ''}`,
                  )
                  .join('; ')
              }}
            </dd></template
          >
          <template v-if="ownCare"
            ><dt>Cleaned or oiled otherwise</dt>
            <dd><LazyOwnCareRows :model-value="book.type.careRows" disabled /></dd
          ></template>
          <dt>Noted of every one</dt>
          <dd class="lines">{{ book.type.notes || 'Nothing yet: a job that is handed back asks for it' }}</dd>
        </dl>
        <h2 class="jobs-head">Jobs</h2>
        <p v-if="book.jobs.length === 0" class="quiet">No job yet.</p>
        <div class="jobs"><JobTag v-for="tag in book.jobs" :key="tag.id" :tag="tag" compact /></div>
      </section>
    </div>
    <v-dialog :model-value="editing !== null" max-width="820" @update:model-value="editing = null">
      <v-card v-if="editing === 'engine'" title="This example"
        ><v-card-text><EngineFieldsForm v-model="engine" :problems="engineCheck.under('fields')" /></v-card-text
        ><v-card-actions
          ><v-btn variant="outlined" @click="editing = null">Leave</v-btn><v-spacer /><v-btn
            color="primary"
            variant="flat"
            @click="keepEngine(book)"
            >Keep</v-btn
          ></v-card-actions
        ></v-card
      >
      <v-card v-else-if="editing === 'type'" title="The type, for all its examples"
        ><v-card-text><TypeFieldsForm v-model="type" :problems="typeCheck.under('fields')" /></v-card-text
        ><v-card-actions
          ><v-btn variant="outlined" @click="editing = null">Leave</v-btn><v-spacer /><v-btn
            color="primary"
            variant="flat"
            @click="keepType(book)"
            >Keep</v-btn
          ></v-card-actions
        ></v-card
      >
      <v-card v-else title="Motor or decoder">
        <v-card-text class="fields"
          ><v-select
            v-model="component.kind"
            :items="Object.entries(componentKinds).map(([value, title]) => ({ value, title }))"
            label="It is" /><v-text-field
            v-model="component.description"
            label="Which"
            class="wide"
            :error-messages="componentCheck.under('fields').description" /><v-text-field
            v-model="component.fittedOn"
            label="Fitted"
            type="date" /><v-text-field v-model="component.removedOn" label="Removed" type="date" /><v-text-field
            v-model="component.notes"
            label="Notes"
            class="wide"
        /></v-card-text>
        <v-card-actions
          ><v-btn variant="outlined" @click="editing = null">Leave</v-btn><v-spacer /><v-btn
            color="primary"
            variant="flat"
            @click="keepComponent"
            >Keep</v-btn
          ></v-card-actions
        >
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin: 8px 0 6px;
}
.facts {
  display: grid;
  grid-template-columns: 130px 1fr;
  margin: 0 0 16px;
}
.facts dt,
.facts dd {
  border-top: 1px solid var(--rule);
  padding: 8px 0;
  margin: 0;
}
.facts dt {
  color: var(--soft);
  font-size: 0.9rem;
}
.unit {
  display: block;
}
.lines {
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.component {
  display: grid;
  grid-template-columns: 80px 1fr max-content;
  gap: 12px;
  align-items: center;
}
.gone strong {
  text-decoration: line-through;
}
.jobs-head {
  margin: 18px 0 10px;
}
.jobs {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 14px 24px;
  padding-left: 8px;
}
</style>
