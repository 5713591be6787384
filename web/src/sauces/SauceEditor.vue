<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import LineRows from '@/bases/LineRows.vue'
import Icon from '@/parts/Icon.vue'
import WeightField from '@/parts/WeightField.vue'
import { copyOf } from '@/parts/useSaved'
import { useSauces, type Sauce } from './sauces'

/** What goes into a pot, and what is wanted of it. Nothing is kept before it can be made. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ from?: Sauce; keep: (s: Sauce) => Promise<Record<string, string> | undefined> }>()
const sauces = useSauces()
const sauce = ref<Sauce>()
const faults = ref<Record<string, string>>({})
const busy = ref(false)
watch(
  open,
  (o) => {
    if (!o) return
    sauces.loadExamples().catch(() => undefined) // the program is away: the form shows all
    faults.value = {}
    sauce.value = props.from
      ? copyOf(props.from)
      : {
          format: 'upbeat-ladle/sauce',
          version: 1,
          name: '',
          kind: 'compote',
          lines: [
            { ingredient: 'blueberry_frozen', amount: 500, unit: 'g' },
            { ingredient: 'granulated_sugar', amount: 100, unit: 'g' },
          ],
        }
  },
  { immediate: true },
)
/** What is rare is offered only to the sauce that has it. */
const choices = computed(() => {
  const kind = sauce.value?.kind ?? 'compote'
  const known = sauces.kinds.filter((k) => !k.rare || k.kind === kind)
  return known.some((k) => k.kind === kind) ? known : [...known, { kind, name: kind, says: '' }]
})
const row = computed(() => sauces.kinds.find((k) => k.kind === sauce.value?.kind))
/** While nobody knows what a kind is asked, nothing is left out. */
const boils = computed(() => row.value?.boiled_down ?? true)
const asks = (what: Schemas['SauceChoice']['asks'][number]) => row.value?.asks.includes(what) ?? true

const downTo = [
  { value: 'usual', label: 'as usual' },
  { value: 'brix', label: '°Brix' },
  { value: 'mass_g', label: 'g' },
  { value: 'temperature_c', label: '°C' },
] as const
type By = (typeof downTo)[number]['value']
const by = ref<By>('usual')
watch(sauce, (s, was) => {
  if (s && !was) by.value = downTo.find((d) => d.value !== 'usual' && s.target?.[d.value] !== undefined)?.value ?? 'usual'
})
watch(open, (o) => {
  const t = sauce.value?.target
  if (o) by.value = downTo.find((d) => d.value !== 'usual' && t?.[d.value] !== undefined)?.value ?? 'usual'
})
function aim(patch: Sauce['target']) {
  if (!sauce.value) return
  const t = { ...sauce.value.target, ...patch }
  sauce.value.target = Object.fromEntries(Object.entries(t).filter(([, v]) => v !== undefined))
}
function aimBy(next: By) {
  by.value = next
  aim({ brix: undefined, mass_g: undefined, temperature_c: undefined })
}
/** The program names fields from the sauce on. */
const fault = (field: string) => faults.value[`sauce/${field}`] ?? faults.value[field]
const lineFaults = computed(() => Object.fromEntries(Object.entries(faults.value).map(([k, v]) => [`/${k.replace(/^\/?(sauce\/)?/, '')}`, v])))
const general = computed(() => faults.value[''] ?? lineFaults.value['/lines'] ?? lineFaults.value['/target'] ?? lineFaults.value['/kind'])
async function save() {
  if (!sauce.value) return
  if (!sauce.value.name.trim()) {
    faults.value = { name: 'Name the sauce.' }
    return
  }
  busy.value = true
  const made = copyOf(sauce.value)
  if (!boils.value && made.target) made.target = { servings: made.target.servings, serving_g: made.target.serving_g }
  if (made.target && !Object.values(made.target).some((v) => v !== undefined)) delete made.target
  const wrong = await props.keep(made).catch((e: Error) => ({ '': e.message }))
  faults.value = wrong ?? {}
  if (!wrong) open.value = false
  busy.value = false
}
</script>

<template>
  <el-dialog v-model="open" :title="from ? from.name : 'A new pot'" width="min(760px, 96vw)" top="4vh" append-to-body>
    <form v-if="open && sauce" novalidate class="editor" data-sauce-editor @submit.prevent="save">
      <div class="head">
        <div>
          <label for="sauce-name">Name</label><el-input id="sauce-name" v-model="sauce.name" maxlength="120" />
          <p v-if="fault('name')" class="fault" role="alert">{{ fault('name') }}</p>
        </div>
        <div>
          <label for="sauce-kind">It is a</label
          ><el-select id="sauce-kind" v-model="sauce.kind" aria-label="Kind of sauce"
            ><el-option v-for="k in choices" :key="k.kind" :value="k.kind" :label="k.name"
              ><span class="kind"
                >{{ k.name }}<small class="muted">{{ k.says }}</small></span
              ></el-option
            ></el-select
          >
        </div>
      </div>
      <div>
        <h3>What goes in</h3>
        <p v-if="sauce.target?.servings" class="muted">As you wrote it; the pot is made for {{ sauce.target.servings }} servings.</p>
        <LineRows v-model="sauce.lines" :faults="lineFaults" first="granulated_sugar" />
      </div>
      <div v-if="boils" class="ask">
        <div class="by">
          <label>Boil down to</label>
          <el-radio-group :model-value="by" class="pick" aria-label="Boil down to" @update:model-value="aimBy($event as By)">
            <el-radio-button v-for="d in downTo" :key="d.value" :value="d.value">{{ d.label }}</el-radio-button>
          </el-radio-group>
        </div>
        <WeightField
          v-if="by !== 'usual'"
          :name="`target-${by}`"
          label="That is"
          :unit="downTo.find((d) => d.value === by)?.label"
          :model-value="sauce.target?.[by]"
          :fault="fault(`target/${by}`)"
          @update:model-value="aim({ [by]: $event })" />
      </div>
      <div class="ask">
        <el-checkbox v-if="asks('browned')" :model-value="!!sauce.browned" @update:model-value="sauce.browned = ($event as boolean) || undefined"
          >browned</el-checkbox
        >
        <WeightField
          v-if="asks('minutes')"
          name="minutes"
          label="It stands"
          unit="min"
          hint="usual"
          :model-value="sauce.minutes"
          :fault="fault('minutes')"
          @update:model-value="sauce.minutes = $event" />
        <WeightField
          v-if="asks('overrun_pct')"
          name="overrun"
          label="More volume"
          unit="%"
          hint="usual"
          :model-value="sauce.overrun_pct"
          :fault="fault('overrun_pct')"
          @update:model-value="sauce.overrun_pct = $event" />
        <WeightField
          name="serving"
          label="A serving"
          unit="g"
          hint="usual"
          :model-value="sauce.target?.serving_g"
          :fault="fault('target/serving_g')"
          @update:model-value="aim({ serving_g: $event })" />
        <div class="by">
          <label>Served</label>
          <el-radio-group
            :model-value="sauce.served ?? ''"
            class="pick"
            aria-label="Served warm or cold"
            @update:model-value="sauce.served = ($event as Sauce['served']) || undefined">
            <el-radio-button value="">as usual</el-radio-button><el-radio-button value="warm">warm</el-radio-button
            ><el-radio-button value="cold">cold</el-radio-button>
          </el-radio-group>
        </div>
        <WeightField
          name="pot_mm"
          label="The pot across"
          unit="mm"
          hint="160"
          :model-value="sauce.pot_mm"
          :fault="fault('pot_mm')"
          @update:model-value="sauce.pot_mm = $event" />
        <WeightField
          name="pot_g"
          label="The empty pot"
          unit="g"
          weigh
          :model-value="sauce.pot_g"
          :fault="fault('pot_g')"
          @update:model-value="sauce.pot_g = $event" />
      </div>
      <div><label for="sauce-note">Note</label><el-input id="sauce-note" v-model="sauce.note" type="textarea" :rows="2" maxlength="1000" /></div>
      <p v-if="general" class="fault" role="alert"><i class="sign high" />{{ general }}</p>
      <el-button class="go" native-type="submit" :loading="busy"><Icon name="tick" />Save</el-button>
    </form>
  </el-dialog>
</template>

<style scoped>
.editor {
  display: grid;
  gap: var(--s3);
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: var(--s3);
}
label {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
  padding-bottom: 2px;
}
h3 {
  font-size: var(--t-body);
  padding-bottom: var(--s1);
}
.kind {
  display: flex;
  gap: var(--s2);
  align-items: baseline;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s4);
  align-items: end;
}
.ask > :deep(.field) {
  flex: 0 1 150px;
}
.fault {
  display: flex;
  gap: var(--s2);
  align-items: center;
  color: var(--beet);
  font-size: var(--t-mini);
}
</style>
