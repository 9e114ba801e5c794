<script setup lang="ts">
import { readMoney } from '~~/work/read-money'
import { v7 as newId } from 'uuid'
import type { InstrumentRow, MeterRow, PersonRow } from '~~/messages/book'
import type { MeterFields, PersonFields, WorkshopFields } from '~~/messages/bench-entries'
import { currencies, roles } from '~~/messages/vocabulary'

/** The shop's own settings: name and rate, meters with their accuracy, people. */
const workshop = useWorkshopStore()
const outbox = useOutbox()
const session = useSessionStore()
onMounted(() => void workshop.load())

const settings = ref<WorkshopFields | null>(null)
const begun = shallowRef<WorkshopFields | null>(null)
const editing = ref<'workshop' | 'meter' | 'person' | null>(null)
const meter = ref<MeterFields & { id: string; version: number }>(newMeter())
const person = ref<PersonFields & { id: string; version: number; password: string }>(newPerson())
const numbers = ref({ rangeTop: '', resolution: '', percentOfReading: '', digits: '' })
const instrument = shallowRef<InstrumentRow | null>(null)
const instrumentOpen = ref(false)
const rate = ref('')
const tax = ref('')
const idleHours = ref('')
const backups = ref('')
const wholeBetween = (text: string, least: number, most: number): boolean =>
  /^\d{1,3}$/.test(text.trim()) && Number(text) >= least && Number(text) <= most
const read = (text: string): number => (text.trim() === '' ? Number.NaN : Number(text.replace(',', '.')))
const meterUnits = { voltage: 'V', current: 'mA', resistance: 'Ω' } as const
const toShown = (measures: MeterFields['measures'], value: number): number =>
  measures === 'current' ? Number((value * 1000).toPrecision(10)) : value
const toKept = (measures: MeterFields['measures'], value: number): number =>
  measures === 'current' ? value / 1000 : value

function newMeter(): MeterFields & { id: string; version: number } {
  return {
    id: newId(),
    version: 0,
    name: '',
    measures: 'current',
    rangeTop: 0.4,
    resolution: 0.0001,
    percentOfReading: 1,
    digits: 3,
    retired: false,
  }
}
function newPerson(): PersonFields & { id: string; version: number; password: string } {
  return { id: newId(), version: 0, signInName: '', name: '', role: 'hand', active: true, password: '' }
}

function editWorkshop(): void {
  const book = workshop.book
  if (!book) return
  settings.value = { ...book.workshop }
  begun.value = { ...book.workshop }
  rate.value = (book.workshop.hourlyRate / 100).toFixed(2)
  tax.value = String(book.workshop.taxPercent)
  idleHours.value = String(book.workshop.idleHours)
  backups.value = String(book.workshop.nightlyBackups)
  editing.value = 'workshop'
}
async function keepWorkshop(): Promise<void> {
  const hourlyRate = readMoney(rate.value)
  const taxPercent = read(tax.value)
  if (
    !settings.value ||
    !begun.value ||
    hourlyRate === null ||
    !(taxPercent >= 0 && taxPercent <= 100) ||
    !wholeBetween(idleHours.value, 1, 168) ||
    !wholeBetween(backups.value, 0, 60)
  )
    return
  await outbox.send(
    'workshop.save',
    {
      fields: {
        ...settings.value,
        hourlyRate,
        taxPercent,
        idleHours: Number(idleHours.value),
        nightlyBackups: Number(backups.value),
      },
    },
    { version: workshop.book?.version ?? 0, ...begun.value },
  )
  editing.value = null
}

function editMeter(row: MeterRow | null): void {
  meter.value = row ? { ...row } : newMeter()
  const { measures, rangeTop, resolution, percentOfReading, digits } = meter.value
  numbers.value = {
    rangeTop: String(toShown(measures, rangeTop)),
    resolution: String(toShown(measures, resolution)),
    percentOfReading: String(percentOfReading),
    digits: String(digits),
  }
  editing.value = 'meter'
}
const meterProblem = computed(() => {
  if (!meter.value.name.trim()) return 'Give the meter a name.'
  if (!(read(numbers.value.rangeTop) > 0) || !(read(numbers.value.resolution) > 0))
    return 'Range and last digit are numbers above zero.'
  if (!(read(numbers.value.percentOfReading) >= 0) || !(read(numbers.value.digits) >= 0))
    return 'Accuracy is a percentage and a number of digits, as in the meter’s leaflet.'
  return ''
})
async function keepMeter(): Promise<void> {
  if (meterProblem.value) return
  const { id, version, name, measures, retired } = meter.value
  const fields: MeterFields = {
    name,
    measures,
    retired,
    rangeTop: toKept(measures, read(numbers.value.rangeTop)),
    resolution: toKept(measures, read(numbers.value.resolution)),
    percentOfReading: read(numbers.value.percentOfReading),
    digits: read(numbers.value.digits),
  }
  await outbox.send('meter.save', { id, fields }, version ? { version } : undefined)
  editing.value = null
}

function editPerson(row: PersonRow | null): void {
  person.value = row ? { ...row, password: '' } : newPerson()
  editing.value = 'person'
}
const personProblem = computed(() => {
  const { signInName, name, password, version } = person.value
  if (!/^[a-z0-9][a-z0-9._-]+$/.test(signInName)) return 'The sign-in name takes small letters, digits, dot and hyphen.'
  if (!name.trim()) return 'The person needs a name.'
  if ((version === 0 || password) && password.length < 12) return 'The password needs twelve characters or more.'
  return ''
})
async function keepPerson(): Promise<void> {
  if (personProblem.value) return
  const { id, version, signInName, name, role, active, password } = person.value
  await outbox.send(
    'person.save',
    { id, fields: { signInName, name, role, active }, password: password || null },
    version ? { version } : undefined,
  )
  editing.value = null
}
</script>

<template>
  <div class="page">
    <div class="page-head"><h1>Workshop</h1></div>
    <p v-if="workshop.failure" class="sign sign--care" role="alert">{{ workshop.failure }}</p>
    <div v-if="workshop.book" class="columns columns--two">
      <section>
        <div class="head">
          <h2>The shop</h2>
          <v-btn v-if="session.isOwner" variant="outlined" @click="editWorkshop">Change</v-btn>
        </div>
        <dl class="facts">
          <dt>Name</dt>
          <dd>{{ workshop.book.workshop.name }}</dd>
          <dt>Address</dt>
          <dd class="pre">{{ workshop.book.workshop.address || 'Not noted; it heads the printed sheet' }}</dd>
          <dt>Rate</dt>
          <dd>
            {{ (workshop.book.workshop.hourlyRate / 100).toFixed(2) }} {{ workshop.book.workshop.currency }} an hour
          </dd>
          <dt>Tax</dt>
          <dd>{{ workshop.book.workshop.taxName }} {{ workshop.book.workshop.taxPercent }} %</dd>
          <dt>Signed out after</dt>
          <dd>{{ workshop.book.workshop.idleHours }} h without a touch</dd>
          <dt>Backups kept</dt>
          <dd>
            {{
              workshop.book.workshop.nightlyBackups === 0
                ? 'None is written at night'
                : `${workshop.book.workshop.nightlyBackups}, one written every night`
            }}
          </dd>
          <dt>Foot of the sheet</dt>
          <dd class="pre">{{ workshop.book.workshop.handBackFooter || 'Empty' }}</dd>
        </dl>
        <div class="head">
          <h2>People</h2>
          <v-btn v-if="session.isOwner" variant="outlined" @click="editPerson(null)">New account</v-btn>
        </div>
        <ul class="ruled-list">
          <li v-for="row in workshop.book.people" :key="row.id" class="row">
            <span
              ><strong>{{ row.name }}</strong>
              <span class="quiet"
                >signs in as {{ row.signInName }}{{ row.active ? '' : ', account closed' }}</span
              ></span
            ><span>{{ roles[row.role] }}</span
            ><v-btn v-if="session.isOwner" size="small" variant="outlined" @click="editPerson(row)">Change</v-btn>
          </li>
        </ul>
      </section>
      <section>
        <div class="head">
          <h2>Meters</h2>
          <v-btn v-if="session.mayWrite" variant="outlined" @click="editMeter(null)">New meter</v-btn>
        </div>
        <p class="quiet">
          Each range with its accuracy as the leaflet gives it. A reading keeps it as it was on the day.
        </p>
        <EmptyState
          v-if="workshop.book.meters.length === 0"
          title="No meters yet"
          text="Without one, ±(1 % + 1 digit) is taken."
          action="Enter a meter"
          @act="editMeter(null)"
        />
        <ul v-else class="ruled-list">
          <li v-for="row in workshop.book.meters" :key="row.id" class="row" :class="{ retired: row.retired }">
            <span
              ><strong>{{ row.name }}</strong>
              <span class="quiet"
                >{{ row.measures }}, up to {{ toShown(row.measures, row.rangeTop) }} {{ meterUnits[row.measures] }},
                last digit {{ toShown(row.measures, row.resolution) }} {{ meterUnits[row.measures]
                }}{{ row.retired ? ', retired' : '' }}</span
              ></span
            ><span class="figure">±({{ row.percentOfReading }} % + {{ row.digits }})</span
            ><v-btn v-if="session.mayWrite" size="small" variant="outlined" @click="editMeter(row)">Change</v-btn>
          </li>
        </ul>
        <div class="head">
          <h2>Supplies</h2>
          <v-btn
            v-if="session.isOwner"
            variant="outlined"
            @click="
              () => {
                instrument = null
                instrumentOpen = true
              }
            "
            >New supply</v-btn
          >
        </div>
        <p class="quiet">
          A bench supply with meter that measures a motor into its sheet by itself: the simulated one, or yours.
        </p>
        <EmptyState
          v-if="workshop.book.instruments.length === 0"
          title="No supply yet"
          text="The simulated one shows what it does without anything being connected."
          action="Enter a supply"
          @act="
            () => {
              instrument = null
              instrumentOpen = true
            }
          "
        />
        <ul v-else class="ruled-list">
          <li v-for="row in workshop.book.instruments" :key="row.id" class="row" :class="{ retired: row.retired }">
            <span
              ><strong>{{ row.name }}</strong>
              <span class="quiet"
                >{{ row.kind === 'simulated' ? 'simulated' : `${row.host}, port ${row.port}`
                }}{{ row.retired ? ', retired' : '' }}</span
              ></span
            ><span class="figure">±({{ row.current.percentOfReading }} % + {{ row.current.digits }})</span
            ><v-btn
              v-if="session.isOwner"
              size="small"
              variant="outlined"
              :aria-label="`Change ${row.name}`"
              @click="
                () => {
                  instrument = row
                  instrumentOpen = true
                }
              "
              >Change</v-btn
            >
          </li>
        </ul>
      </section>
    </div>
    <LazyShelfPanel v-if="workshop.book" />
    <LazyTraysPanel v-if="workshop.book" />
    <LazySchoolsPanel v-if="workshop.book" />
    <LazyOwnCarePanel v-if="workshop.book" />
    <LazyLearnedPanel />
    <InstrumentDialog v-model="instrumentOpen" :row="instrument" />
    <v-dialog :model-value="editing !== null" max-width="620" @update:model-value="editing = null">
      <v-card v-if="editing === 'workshop' && settings" title="The shop">
        <v-card-text class="fields"
          ><v-text-field v-model="settings.name" label="Name" class="wide" /><v-textarea
            v-model="settings.address"
            label="Address"
            class="wide" /><v-select
            v-model="settings.currency"
            :items="[...currencies]"
            label="Currency" /><v-text-field
            v-model="rate"
            label="Rate an hour"
            inputmode="decimal"
            :error-messages="readMoney(rate) === null ? ['A sum such as 38 or 38.50.'] : []" /><v-text-field
            v-model="settings.taxName"
            label="Tax is called" /><v-text-field
            v-model="tax"
            label="Tax (%)"
            inputmode="decimal"
            :error-messages="read(tax) >= 0 && read(tax) <= 100 ? [] : ['A percentage from 0 to 100.']" />
          <v-text-field
            v-model="idleHours"
            label="Sign a device out after (h)"
            inputmode="numeric"
            :error-messages="wholeBetween(idleHours, 1, 168) ? [] : ['Whole hours, from 1 to 168.']" /><v-text-field
            v-model="backups"
            label="Backups of the nights kept"
            inputmode="numeric"
            :error-messages="wholeBetween(backups, 0, 60) ? [] : ['A number from 0 (none) to 60.']" /><v-textarea
            v-model="settings.handBackFooter"
            label="Foot of the printed sheet"
            class="wide"
        /></v-card-text>
        <v-card-actions
          ><v-btn variant="outlined" @click="editing = null">Leave</v-btn><v-spacer /><v-btn
            color="primary"
            variant="flat"
            @click="keepWorkshop"
            >Keep</v-btn
          ></v-card-actions
        >
      </v-card>
      <v-card v-else-if="editing === 'meter'" title="Meter, one range">
        <v-card-text class="fields"
          ><v-text-field v-model="meter.name" v-focus-first label="Name and range" class="wide" /><v-select
            v-model="meter.measures"
            :items="[
              { value: 'voltage', title: 'Voltage' },
              { value: 'current', title: 'Current' },
              { value: 'resistance', title: 'Resistance' },
            ]"
            label="Measures"
          /><v-text-field
            v-model="numbers.rangeTop"
            :label="`Range up to (${meterUnits[meter.measures]})`"
            inputmode="decimal"
          /><v-text-field
            v-model="numbers.resolution"
            :label="`Last digit is worth (${meterUnits[meter.measures]})`"
            inputmode="decimal"
          /><v-text-field
            v-model="numbers.percentOfReading"
            label="± percent of reading"
            inputmode="decimal"
          /><v-text-field v-model="numbers.digits" label="+ digits" inputmode="decimal" /><v-checkbox
            v-model="meter.retired"
            label="Retired: no longer offered"
            class="wide"
          />
          <p v-if="meterProblem" class="wide quiet">{{ meterProblem }}</p></v-card-text
        >
        <v-card-actions
          ><v-btn variant="outlined" @click="editing = null">Leave</v-btn><v-spacer /><v-btn
            color="primary"
            variant="flat"
            :disabled="Boolean(meterProblem)"
            @click="keepMeter"
            >Keep</v-btn
          ></v-card-actions
        >
      </v-card>
      <v-card v-else-if="editing === 'person'" title="Account">
        <v-card-text class="fields"
          ><v-text-field v-model="person.name" v-focus-first label="Name" class="wide" /><v-text-field
            v-model="person.signInName"
            label="Sign-in name"
            autocapitalize="none"
            autocomplete="off"
          /><v-select
            v-model="person.role"
            :items="Object.entries(roles).map(([value, title]) => ({ value, title }))"
            label="Role"
          /><v-text-field
            v-model="person.password"
            :label="person.version ? 'New password, or leave empty' : 'Password, twelve characters or more'"
            type="password"
            autocomplete="new-password"
            class="wide"
          /><v-checkbox v-model="person.active" label="May sign in" class="wide" />
          <p v-if="personProblem" class="wide quiet">{{ personProblem }}</p></v-card-text
        >
        <v-card-actions
          ><v-btn variant="outlined" @click="editing = null">Leave</v-btn><v-spacer /><v-btn
            color="primary"
            variant="flat"
            :disabled="Boolean(personProblem)"
            @click="keepPerson"
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
  margin: 6px 0;
  min-height: 48px;
}
.facts {
  display: grid;
  grid-template-columns: 140px 1fr;
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
.pre {
  white-space: pre-wrap;
}
.row {
  display: grid;
  grid-template-columns: 1fr max-content max-content;
  gap: 14px;
  align-items: center;
}
.retired strong {
  font-weight: 450;
  color: var(--soft);
}
</style>
