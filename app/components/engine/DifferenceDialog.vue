<script setup lang="ts">
import { applyDifferences } from '~~/core/engine/apply-differences'
import { materials, type EngineDescription, type Material } from '~~/core/engine/description-schema'
import type { Difference, DifferenceKind } from '~~/core/engine/difference-schema'
import { differenceInWords, differenceKinds } from '~~/core/engine/difference-in-words'

/** One difference, chosen from what this engine has: never typed as a formula. What it would do is said before it is kept. */
const props = defineProps<{ description: EngineDescription; scope: string }>()
const opened = defineModel<boolean>({ required: true })
const emit = defineEmits<{ keep: [difference: Difference] }>()

const kind = ref<DifferenceKind>('motor')
const form = reactive({
  motor: '',
  name: '',
  motorKind: 'can' as 'open-frame' | 'side-brush' | 'can' | 'coreless',
  ohms: '',
  backEmf: '',
  segments: '5',
  turns: '',
  link: '',
  teethFrom: '',
  teethTo: '',
  wheelSets: [] as string[],
  diameterMm: '',
  wheelSet: '',
  side: 'right' as 'left' | 'right',
  fitted: true,
  to: '',
  component: '',
  part: '',
  bridged: false,
  unit: '',
  grams: '',
  place: '',
  minutes: '',
  materials: [] as Material[],
})
watch(opened, (now) => {
  if (!now) return
  const { motors, links, wheelSets, units, parts } = props.description
  const [motor] = motors
  const winding = props.description.components.find((component) => component.id === motor?.armature)
  const geared = links.find((link) => link.teethFrom !== null)
  Object.assign(form, {
    motor: motor?.id ?? '',
    name: '',
    ohms: winding?.ohms ? String(winding.ohms) : '',
    backEmf: motor ? String(motor.backEmf) : '',
    segments: String(motor?.segments ?? 3),
    turns: '',
    link: geared?.id ?? '',
    teethFrom: String(geared?.teethFrom ?? ''),
    teethTo: String(geared?.teethTo ?? ''),
    wheelSets: [],
    diameterMm: '',
    wheelSet: wheelSets[0]?.id ?? '',
    component: leads.value[0]?.value ?? '',
    part: parts[0]?.id ?? '',
    unit: units[0]?.id ?? '',
    grams: '',
    place: '',
    materials: [],
    to: buses.value[0]?.value ?? '',
  })
})

const items = (list: ReadonlyArray<{ id: string; name: string }>) =>
  list.map((entry) => ({ value: entry.id, title: entry.name }))
const removable = computed(() => items(props.description.parts.filter((part) => part.removal !== null)))
const leads = computed(() =>
  items(
    props.description.components.filter(
      (component) => component.kind === 'conductor' && component.part !== null && component.faults.length > 0,
    ),
  ),
)
const buses = computed(() =>
  items(props.description.nodes.filter((node) => ['pickup', 'lead', 'board'].includes(node.stage))),
)
const number = (text: string): number => Number(text.trim().replace(',', '.'))

const difference = computed<Difference | null>(() => chosenDifference(form))
function chosenDifference(f: typeof form): Difference | null {
  const whole = (text: string): number | null =>
    Number.isInteger(number(text)) && number(text) > 0 ? number(text) : null
  const above = (text: string): number | null => (text.trim() !== '' && number(text) > 0 ? number(text) : null)
  switch (kind.value) {
    case 'motor': {
      const [ohms, backEmf, segments] = [above(f.ohms), above(f.backEmf), whole(f.segments)]
      return ohms && backEmf && segments && segments >= 3 && f.name.trim()
        ? { kind: 'motor', motor: f.motor, name: f.name.trim(), motorKind: f.motorKind, ohms, backEmf, segments }
        : null
    }
    case 'gear-ratio': {
      const turns = above(f.turns)
      return turns ? { kind: 'gear-ratio', turns } : null
    }
    case 'gear': {
      const [teethFrom, teethTo] = [whole(f.teethFrom), whole(f.teethTo)]
      return teethFrom && teethTo ? { kind: 'gear', link: f.link, teethFrom, teethTo } : null
    }
    case 'wheels': {
      const diameterMm = above(f.diameterMm)
      return diameterMm && f.wheelSets.length > 0 ? { kind: 'wheels', wheelSets: [...f.wheelSets], diameterMm } : null
    }
    case 'tyre':
      return { kind: 'tyre', wheelSet: f.wheelSet, side: f.side, fitted: f.fitted }
    case 'pickup':
      return { kind: 'pickup', wheelSet: f.wheelSet, side: f.side, to: f.to }
    case 'resistor': {
      const ohms = above(f.ohms)
      return ohms && f.component
        ? { kind: 'resistor', component: f.component, ohms, name: f.name.trim() || 'Resistor' }
        : null
    }
    case 'omitted':
      return { kind: 'omitted', part: f.part, bridged: f.bridged }
    case 'fastened':
      return f.place.trim()
        ? { kind: 'fastened', part: f.part, heldBy: f.place.trim(), minutes: above(f.minutes), refitMinutes: null }
        : null
    case 'covered': {
      const minutes = above(f.minutes)
      return f.name.trim() && f.place.trim() && minutes
        ? { kind: 'covered', part: f.part, name: f.name.trim(), heldBy: f.place.trim(), minutes }
        : null
    }
    case 'weight': {
      const grams = number(f.grams)
      return f.grams.trim() && Number.isFinite(grams) && grams !== 0 && f.place.trim()
        ? { kind: 'weight', unit: f.unit, grams, place: f.place.trim() }
        : null
    }
    case 'material':
      return f.materials.length > 0 ? { kind: 'material', part: f.part, materials: [...f.materials] } : null
    case 'opened': {
      const minutes = above(f.minutes)
      return f.motor && f.place.trim() && minutes
        ? { kind: 'opened', motor: f.motor, heldBy: f.place.trim(), minutes }
        : null
    }
    case 'decoder':
      return { kind: 'decoder' }
  }
}
const problem = computed(() =>
  difference.value ? (applyDifferences(props.description, [difference.value]).flagged[0]?.message ?? '') : '',
)
const wanting: Readonly<Record<DifferenceKind, string>> = {
  motor: 'Name, ohms, V·s/rad and at least three segments are needed.',
  'gear-ratio': 'Motor turns to one wheel turn, above 0.',
  gear: 'Whole numbers of teeth, above 0.',
  wheels: 'Which axles, and a diameter above 0 mm.',
  tyre: '',
  pickup: '',
  resistor: 'Which lead, and ohms above 0.',
  omitted: '',
  weight: 'Grams (with a minus when taken out) and where.',
  material: 'What it is made of.',
  fastened: 'Which part, and what holds it: number, thread, length and head of screws, glue, rivets.',
  covered: 'Which part, what lies over it, what holds that, and minutes above 0.',
  opened: 'Which motor, what holds its end plate, and minutes above 0.',
  decoder: '',
}

function keep(): void {
  if (!difference.value || problem.value) return
  emit('keep', difference.value)
  opened.value = false
}
</script>

<template>
  <v-dialog v-model="opened" max-width="720">
    <v-card title="What differs">
      <v-card-text class="fields">
        <v-select
          v-model="kind"
          :items="Object.entries(differenceKinds).map(([value, title]) => ({ value, title }))"
          label="What"
          class="wide"
        />
        <template v-if="kind === 'motor'">
          <v-select v-model="form.motor" :items="items(description.motors)" label="In place of" /><v-text-field
            v-model="form.name"
            label="What is in it now"
          />
          <v-select
            v-model="form.motorKind"
            :items="[
              { value: 'can', title: 'Closed can' },
              { value: 'open-frame', title: 'Open frame' },
              { value: 'side-brush', title: 'Flat side-brush' },
              { value: 'coreless', title: 'Coreless' },
            ]"
            label="Kind"
          /><v-text-field v-model="form.segments" label="Segments" inputmode="numeric" />
          <v-text-field v-model="form.ohms" label="Winding (Ω)" inputmode="decimal" /><v-text-field
            v-model="form.backEmf"
            label="Magnet (V·s/rad)"
            inputmode="decimal"
          />
        </template>
        <v-text-field
          v-else-if="kind === 'gear-ratio'"
          v-model="form.turns"
          label="Motor turns to one wheel turn"
          inputmode="decimal"
        />
        <template v-else-if="kind === 'gear'"
          ><v-select
            v-model="form.link"
            :items="items(description.links.filter((link) => link.teethFrom !== null))"
            label="Which mesh"
            class="wide" /><v-text-field
            v-model="form.teethFrom"
            label="Teeth or starts, motor side"
            inputmode="numeric" /><v-text-field v-model="form.teethTo" label="Teeth, wheel side" inputmode="numeric"
        /></template>
        <template v-else-if="kind === 'wheels'"
          ><v-select
            v-model="form.wheelSets"
            :items="items(description.wheelSets)"
            label="Which axles"
            multiple
            class="wide" /><v-text-field
            v-model="form.diameterMm"
            label="Diameter on the tread (mm)"
            inputmode="decimal"
        /></template>
        <template v-else-if="kind === 'tyre' || kind === 'pickup'">
          <v-select
            v-model="form.wheelSet"
            :items="items(description.wheelSets)"
            label="Which axle"
            class="wide"
          /><v-select
            v-model="form.side"
            :items="[
              { value: 'left', title: 'Left' },
              { value: 'right', title: 'Right' },
            ]"
            label="Side"
          />
          <v-select
            v-if="kind === 'tyre'"
            v-model="form.fitted"
            :items="[
              { value: true, title: 'has a tyre' },
              { value: false, title: 'has none' },
            ]"
            label="It"
          /><v-select v-else v-model="form.to" :items="buses" label="Leading to" />
        </template>
        <template v-else-if="kind === 'resistor'"
          ><v-select v-model="form.component" :items="leads" label="After which lead" class="wide" /><v-text-field
            v-model="form.ohms"
            label="Resistance (Ω)"
            inputmode="decimal" /><v-text-field v-model="form.name" label="What it is" placeholder="Resistor, 47 Ω"
        /></template>
        <template v-else-if="kind === 'omitted'"
          ><v-autocomplete
            v-model="form.part"
            :items="items(description.parts)"
            label="Which part"
            class="wide" /><v-checkbox v-model="form.bridged" label="A plain wire is in its place"
        /></template>
        <template v-else-if="kind === 'weight'"
          ><v-select v-model="form.unit" :items="items(description.units)" label="In which unit" /><v-text-field
            v-model="form.grams"
            label="Grams"
            inputmode="numeric" /><v-text-field
            v-model="form.place"
            label="Where"
            class="wide"
            placeholder="over the rear axle"
        /></template>
        <template v-else-if="kind === 'material'"
          ><v-autocomplete
            v-model="form.part"
            :items="items(description.parts)"
            label="Which part"
            class="wide" /><v-select
            v-model="form.materials"
            :items="materials.map((value) => ({ value, title: value.replaceAll('-', ' ') }))"
            label="Is made of"
            multiple
            class="wide"
        /></template>
        <template v-else-if="kind === 'fastened' || kind === 'covered'"
          ><v-autocomplete v-model="form.part" :items="removable" label="Which part" class="wide" /><v-text-field
            v-if="kind === 'covered'"
            v-model="form.name"
            label="What lies over it"
            placeholder="Roof vent" /><v-text-field
            v-model="form.place"
            label="Held by"
            placeholder="4 screws M2 × 6, countersunk" /><v-text-field
            v-model="form.minutes"
            label="Minutes to take off"
            inputmode="decimal"
        /></template>
        <template v-else-if="kind === 'opened'"
          ><v-select
            v-model="form.motor"
            :items="items(description.motors.filter((motor) => !motor.opens))"
            label="Which motor"
            no-data-text="Every motor of it opens as described." /><v-text-field
            v-model="form.place"
            label="End plate held by"
            placeholder="two tongues, bent over" /><v-text-field
            v-model="form.minutes"
            label="Minutes to take off"
            inputmode="decimal"
        /></template>
        <p v-if="problem" class="sign sign--fault wide" role="alert">{{ problem }}</p>
        <p v-else-if="difference" class="sign sign--sound wide">{{ differenceInWords(difference, description) }}.</p>
        <p v-else class="quiet wide">{{ wanting[kind] }}</p>
      </v-card-text>
      <v-card-actions
        ><v-btn variant="outlined" @click="opened = false">Leave</v-btn><v-spacer /><v-btn
          color="primary"
          variant="flat"
          :disabled="!difference || problem !== ''"
          @click="keep"
          >Keep it for {{ scope }}</v-btn
        ></v-card-actions
      >
    </v-card>
  </v-dialog>
</template>
