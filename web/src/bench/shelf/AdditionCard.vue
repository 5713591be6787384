<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { Addition, Ingredient, Schemas, SheetLine } from '@/api/client'
import AmountField from '@/parts/AmountField.vue'
import Icon from '@/parts/Icon.vue'
import StepButton from '@/parts/StepButton.vue'
import { onStep, unbroken } from '@/parts/figures'
import { unitsShown } from '@/parts/settings'
import { fills, stages } from '@/bench/choices'
import OwnChip from '@/pantry/OwnChip.vue'
import DoseTrack from './DoseTrack.vue'
import FindAddition from './FindAddition.vue'
import PrepPicker from './PrepPicker.vue'
import StagePicker from './StagePicker.vue'
import UnitPicker from './UnitPicker.vue'

const props = defineProps<{ addition: Addition; line?: SheetLine; active: boolean; counted?: boolean; flourG?: number }>()
const emit = defineEmits<{
  pick: []
  change: [patch: Partial<Addition>]
  step: [by: number]
  remove: []
  stage: [stage: NonNullable<Addition['stage']>]
  replace: [by: Ingredient]
  is: []
}>()

const label = computed(() => props.line?.label ?? props.addition.ingredient)
const particulars = computed(() => props.line?.name.replace(props.line.label, '').replace(/^[,\s]+/, '') ?? '')
// A batch for a number of portions is told as it is weighed; its document keeps the recipe.
const grams = computed(() => (props.addition.unit === 'g' && !props.counted ? props.addition.amount : (props.line?.weigh_g ?? 0)))
const amount = computed(() => (props.counted ? grams.value : props.addition.amount))
const unit = computed(() => (props.counted ? 'g' : props.addition.unit))
const decimals = computed(() => props.line?.decimals ?? 0)

// Another thing in its place: as much of it, and the batter is held where it was. Who opens the field types into it.
const swapping = ref(false)
const other = ref<InstanceType<typeof FindAddition>>()
async function swap() {
  swapping.value = !swapping.value
  await nextTick()
  other.value?.focus()
}
watch(
  () => props.active,
  () => (swapping.value = false),
)
function instead(found: Ingredient) {
  swapping.value = false
  emit('replace', found)
}
</script>

<template>
  <article
    class="well card"
    :class="{ active }"
    :data-addition="addition.ingredient"
    tabindex="-1"
    :aria-label="`${label}, ${onStep(grams, decimals)} g`"
    @click="emit('pick')">
    <div class="top">
      <h3>{{ label }}</h3>
      <output v-if="unitsShown === 'cups' && line?.measure" class="amount cups"
        >{{ unbroken(line.measure) }}<small>{{ onStep(grams, decimals) }} g</small></output
      >
      <output v-else class="amount">{{ onStep(grams, decimals) }} <small>g</small></output>
    </div>
    <p class="particulars">{{ particulars }}</p>
    <p v-if="line?.as_read" class="doubt">
      <i class="sign unknown" />Taken for “{{ line.as_read }}”: its allergens are not known.
      <el-button v-if="active" @click.stop="emit('is')">It is {{ label.toLowerCase() }}</el-button>
    </p>
    <DoseTrack v-if="line?.dose" :dose="line.dose" :grams="grams" :label="label" @update:grams="emit('change', { amount: $event, unit: 'g' })" />
    <p v-if="line?.dry_to_g" class="chip leaf dry">squeeze or reduce to {{ onStep(line.dry_to_g, decimals) }} g</p>
    <p v-if="line?.prepared" class="chip leaf dry">{{ line.prepared.label }}: {{ onStep(line.prepared.grams, decimals) }} g go in</p>
    <OwnChip v-if="line?.own" :own="line.own" class="dry" />
    <div v-if="line?.brings" class="chips">
      <span v-if="line.brings.water_g.toFixed(0) !== '0'" class="chip water"
        ><Icon name="drop" :size="13" />{{
          line.brings.water_g < 0 ? `drinks ${(-line.brings.water_g).toFixed(0)} g` : `${line.brings.water_g.toFixed(0)} g water`
        }}</span
      >
      <span v-if="line.brings.sugars_g.toFixed(0) !== '0'" class="chip honey"
        ><Icon name="cube" :size="13" />{{ line.brings.sugars_g.toFixed(0) }} g sugar</span
      >
    </div>
    <template v-if="active">
      <div class="set">
        <StepButton :label="`Less ${label}`" icon="minus" @step="emit('step', -1)" />
        <AmountField
          class="typed"
          :label="`Amount of ${label}`"
          :model-value="amount"
          :unit="unit"
          free
          @read="$event.amount !== undefined && emit('change', { amount: $event.amount, unit: $event.unit ?? unit })" />
        <UnitPicker
          :model-value="unit"
          class="unit"
          :ingredient="addition.ingredient"
          :label="label"
          @update:model-value="emit('change', { unit: $event, fill: undefined })" />
        <StepButton :label="`More ${label}`" icon="plus" @step="emit('step', 1)" />
      </div>
      <el-select
        v-if="addition.fill"
        :model-value="addition.fill"
        :aria-label="`How full the spoon of ${label} is`"
        @update:model-value="emit('change', { fill: $event as Schemas['Fullness'] })"
        ><el-option v-for="f in fills" :key="f.value" :value="f.value" :label="`${f.label} spoons`"
      /></el-select>
      <PrepPicker
        v-if="line?.treatments?.length"
        :addition="addition"
        :treatments="line.treatments"
        :label="label"
        :have-g="amount"
        :prepared-g="line.prepared?.grams"
        @change="emit('change', $event)" />
      <div class="set">
        <StagePicker :model-value="addition.stage" class="stage" :label="label" @update:model-value="$event && emit('stage', $event)" />
        <el-button :aria-label="`Something else instead of ${label}`" title="Instead of this" :aria-expanded="swapping" @click.stop="swap"
          ><Icon name="swap"
        /></el-button>
        <el-button :aria-label="`Take out ${label}`" @click.stop="emit('remove')"><Icon name="bin" /></el-button>
      </div>
      <FindAddition v-if="swapping" ref="other" class="instead" :flour-g="flourG" :words="`Instead of ${label}`" @found="instead" @click.stop />
    </template>
    <p v-else class="when">{{ stages.find((s) => s.value === addition.stage)?.label }}</p>
  </article>
</template>

<style scoped>
.card {
  padding: 10px 10px 12px;
  cursor: pointer;
}
.card.active {
  background: var(--yolk-wash);
  box-shadow: inset 0 0 0 2px var(--ink);
  cursor: default;
}
.top {
  display: flex;
  align-items: baseline;
  gap: var(--s2);
}
h3 {
  font-size: var(--t-lead);
  margin-right: auto;
  min-width: 0;
  overflow-wrap: anywhere;
}
.amount {
  font-size: 24px;
  font-weight: 750;
  line-height: 1;
  white-space: nowrap;
}
.amount small {
  font-size: 14px;
  font-weight: 500;
  color: var(--ink-2);
}
.amount.cups {
  font-size: var(--t-lead);
  white-space: normal;
  text-align: right;
}
.amount.cups small {
  display: block;
  white-space: nowrap;
}
.particulars {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.doubt {
  color: var(--beet);
  font-size: var(--t-mini);
  overflow-wrap: anywhere;
}
.doubt .sign {
  display: inline-block;
  margin-right: 5px;
}
.chips:not(:empty) {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin-top: var(--s2);
}
.chips .chip {
  padding: 0 7px;
}
.dry {
  margin-top: var(--s2);
  font-size: 14px;
  white-space: normal;
  padding: 4px var(--s2);
  line-height: 1.2;
}
.set {
  display: flex;
  gap: 6px;
  margin-top: var(--s2);
}
.set .el-button {
  width: var(--touch);
  padding: 0;
  flex: none;
}
.typed,
.unit {
  min-width: 0;
  flex: 1;
}
.unit {
  max-width: 68px;
}

.unit :deep(.el-select__wrapper) {
  padding: 0 var(--s2);
}
.stage {
  flex: 1;
}
.instead {
  margin-top: var(--s2);
}
.when {
  margin-top: 6px;
  font-size: var(--t-mini);
  color: var(--ink-2);
}
</style>
