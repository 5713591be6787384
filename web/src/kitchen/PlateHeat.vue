<script setup lang="ts">
import AmountField from '@/parts/AmountField.vue'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useKitchen } from './kitchen'

const griddle = defineModel<Schemas['Griddle']>({ required: true })
const props = defineProps<{ limit: (name: string) => object; fault: (field: string) => string | undefined }>()
const kitchen = useKitchen()

const dials = [
  { value: 'words', label: 'low to high' },
  { value: 'numbers', label: '1 to 9' },
  { value: 'gas', label: 'a gas flame' },
] as const
/** Three marks map a dial: its ends and its middle. */
const asked = computed(() => {
  const marks = kitchen.form?.dials.find((d) => d.dial === griddle.value.dial)?.marks ?? []
  return marks.length ? [marks[0]!, marks[(marks.length - 1) / 2]!, marks[marks.length - 1]!] : []
})
const degrees = (mark: string) => griddle.value.marks?.find((m) => m.mark === mark)?.c
function setDial(dial: (typeof dials)[number]['value'] | undefined) {
  const next = { ...griddle.value, dial: dial || undefined }
  delete next.marks
  if (!next.dial) delete next.dial
  griddle.value = next
}
function setMark(mark: string, c: number | null | undefined) {
  const marks = (griddle.value.marks ?? []).filter((m) => m.mark !== mark)
  if (typeof c === 'number') marks.push({ mark, c })
  const next = { ...griddle.value, marks }
  if (!marks.length) delete (next as Partial<typeof next>).marks
  griddle.value = next
}
function forget() {
  const next = { ...griddle.value }
  delete next.shift_c
  delete next.contact
  griddle.value = next
}
const learnt = computed(() => {
  const { shift_c, contact } = griddle.value
  const parts = []
  if (shift_c) parts.push(`runs ${Math.abs(shift_c).toFixed(0)} °C ${shift_c > 0 ? 'hotter' : 'cooler'} than it says`)
  if (contact) parts.push('takes longer to cook through')
  return parts.join(', ')
})
const faults = computed(() =>
  ['dial', 'marks', 'max_c', 'min_c', 'heat_up_min', ...[0, 1, 2].map((i) => `marks/${i}/c`)].flatMap((f) => props.fault(f) ?? []),
)
</script>

<template>
  <div class="sizes">
    <label>heats from <AmountField v-model="griddle.min_c" v-bind="limit('min_c')" :label="`Lowest heat of ${griddle.name} in °C`" /></label
    ><label
      >to
      <AmountField v-model="griddle.max_c" v-bind="limit('max_c')" :label="`Highest heat of ${griddle.name} in °C`" />
      °C</label
    ><label
      >hot after
      <AmountField
        v-model="griddle.heat_up_min"
        v-bind="limit('heat_up_min')"
        :placeholder="`${kitchen.form?.griddle.heat_up_min ?? ''}`"
        :label="`Minutes until ${griddle.name} is hot`" />
      min</label
    >
  </div>
  <div class="sizes">
    <label
      >its knob shows
      <el-select
        :model-value="griddle.dial"
        clearable
        placeholder="°C, or none"
        class="dial"
        :aria-label="`What stands on the knob of ${griddle.name}`"
        @update:model-value="setDial"
        ><el-option v-for="d in dials" :key="d.value" :value="d.value" :label="d.label" /></el-select
    ></label>
    <label v-for="m in asked" :key="m"
      >{{ m }}
      <AmountField
        :model-value="degrees(m)"
        v-bind="limit('min_c')"
        placeholder="?"
        :label="`${griddle.name} at ${m} in °C`"
        @update:model-value="setMark(m, $event)" />
      °C</label
    >
    <small v-if="asked.length">Not known? Leave it: the first one cooked puts it right.</small>
    <span v-if="learnt" class="learnt"
      ><small>It {{ learnt }}.</small><el-button @click="forget">Forget that</el-button></span
    >
  </div>
  <p v-for="f in faults" :key="f" class="fault" role="alert">{{ f }}</p>
</template>

<style scoped>
.sizes {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
  width: 100%;
  padding-left: 28px;
}
label,
.learnt {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  color: var(--ink-2);
  font-size: var(--t-mini);
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.amount-field {
  width: 74px;
}
.dial {
  width: 150px;
}
.fault {
  width: 100%;
  color: var(--beet);
  font-size: var(--t-mini);
}
</style>
