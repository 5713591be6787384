<script setup lang="ts">
import { ask } from '@/parts/ask'
import { computed, nextTick, ref, watch } from 'vue'
import { said, type Schemas } from '@/api/client'

/**
 * An amount as a cook types it: "200", "1½", "200g", "2 Tbsp". A plain number is taken as it is; anything else is read
 * by the program, into the unit of the field where it has one. A click takes all of it in hand.
 */
const value = defineModel<number | undefined>()
const props = defineProps<{
  label: string
  unit?: Schemas['Unit']
  ingredient?: string
  free?: boolean
  placeholder?: string
  id?: string
  wrong?: boolean
  limits?: { low: number; high: number } // that the program says
}>()
/** A field of any unit says both; one of a fixed unit has a figure only. */
const emit = defineEmits<{ read: [typed: { amount?: number; unit?: Schemas['Unit'] }] }>()

const shown = (v: number | undefined) => (v === undefined ? '' : String(Number(v.toFixed(4))))
const text = ref('')
const trouble = ref('')
watch(
  value,
  (v) => {
    text.value = shown(v)
    trouble.value = ''
  },
  { immediate: true },
)
let refused = '' // the text that the trouble is about
/** Only what nobody can misread is taken without asking, also while the program is away: a figure of at most two decimals. */
const plain = computed(() => {
  const typed = text.value.trim()
  if (typed.startsWith('-') && !((props.limits?.low ?? 0) < 0)) return false
  return /^(-?\d+([.,]\d{1,2})?)?$/.test(typed)
})

function refuse(sentence: string) {
  trouble.value = sentence
  refused = text.value.trim()
}
function take(amount: number | undefined, unit = props.unit) {
  const { low, high } = props.limits ?? {}
  if (amount !== undefined && low !== undefined && high !== undefined && (amount < low || amount > high)) {
    return refuse(high === Infinity ? `It is at least ${low}.` : `It goes from ${low} to ${high}${unit ? ` ${unit}` : ''}.`)
  }
  trouble.value = ''
  if (props.free) emit('read', { amount, unit })
  else value.value = amount
  text.value = shown(amount)
}
async function read(e: Event) {
  const typed = text.value.trim()
  if (typed === shown(value.value) || (trouble.value && typed === refused)) return
  if (plain.value) return take(typed === '' ? undefined : Number(typed.replace(',', '.')))
  e.preventDefault() // what is not read yet is not sent on by Enter
  try {
    const answer = await ask('/amounts', { text: typed, in: props.free ? undefined : props.unit, ingredient: props.ingredient })
    if (answer.unit && !props.unit) refuse('This is a figure without a unit.')
    else take(answer.amount, answer.unit)
  } catch (problem) {
    refuse(said(problem))
  }
}
/** A click takes all of it in hand, while nothing in it is being changed; the browser puts its caret first. */
const untouched = () => text.value === shown(value.value)
function takeInHand(e: MouseEvent) {
  const field = e.target
  if (field instanceof HTMLInputElement && untouched()) setTimeout(() => untouched() && field.select())
}
/** Enter takes it and has all of it in hand again: what is typed next stands in its place. */
async function enter(e: KeyboardEvent) {
  const field = e.target as HTMLInputElement
  await read(e)
  await nextTick()
  if (document.activeElement === field) field.select()
}
const field = ref<{ focus: () => void }>()
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <div class="amount-field" @click="takeInHand">
    <el-input
      :id="id"
      ref="field"
      v-model="text"
      :inputmode="unit || free ? 'text' : 'decimal'"
      autocomplete="off"
      :aria-label="id ? undefined : label"
      :placeholder="placeholder"
      :class="{ wrong: wrong || trouble }"
      @focus="($event.target as HTMLInputElement).select()"
      @keydown.enter="enter($event as KeyboardEvent)"
      @blur="read" />
    <p v-if="trouble" class="fault" role="alert">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.amount-field {
  min-width: 0;
}
.amount-field :deep(.el-input__wrapper) {
  padding: 0 var(--s2);
}
.wrong :deep(.el-input__wrapper) {
  box-shadow: 0 0 0 2px var(--beet) inset;
}
.fault {
  color: var(--beet);
  font-size: var(--t-mini);
  line-height: 1.35;
  padding-top: 2px;
}
</style>
