<script setup lang="ts">
import { ref } from 'vue'
import { say } from '@/parts/say'
import { said, type Schemas } from '@/api/client'
import { fills, flourMethods, unitLabels } from '@/bench/choices'
import AmountField from '@/parts/AmountField.vue'
import Icon from '@/parts/Icon.vue'
import { useBases } from './bases'

/** The lines of a base or of a pot: what, how much, and what can stand in for it. */
const lines = defineModel<Schemas['Line'][]>({ required: true })
const props = defineProps<{
  faults: Record<string, string>
  first?: string // what a new line begins with
  standIns?: (line: number) => Promise<Schemas['Swap'][]>
}>()
const bases = useBases()
void bases.loadIngredients()
const swaps = ref<Schemas['Swap'][]>()
const ways = (id: string) => bases.ingredients.find((i) => i.id === id)?.flour_methods
const units = (id: string) => bases.ingredients.find((i) => i.id === id)?.units ?? ['g']

async function opened(open: boolean, i: number) {
  if (!open || !props.standIns) return
  swaps.value = undefined
  try {
    swaps.value = await props.standIns(i)
  } catch (e) {
    say(said(e))
    swaps.value = []
  }
}
function put(i: number, command: number) {
  const s = swaps.value?.[command]
  if (s) lines.value.splice(i, 1, ...s.lines.map((l) => ({ ingredient: l.ingredient, amount: l.amount, unit: l.unit })))
}
/** What was typed; a unit that does not fit the ingredient is refused at the line when it is saved. */
function typed(i: number, t: { amount?: number; unit?: Schemas['Unit'] }) {
  const l = lines.value[i]!
  l.amount = t.amount ?? 0
  if (t.unit && t.unit !== l.unit) measure(l, t.unit)
}
/** In another unit it is no spoon as it was spoken of. */
function measure(l: Schemas['Line'], unit: Schemas['Unit']) {
  l.unit = unit
  delete l.fill
}
/** Another ingredient keeps the amount if the unit still fits. */
function change(i: number, id: string) {
  const l = lines.value[i]!
  l.ingredient = id
  delete l.role
  delete l.flour_method
  delete l.fill
  if (!units(id).includes(l.unit)) l.unit = 'g'
}
</script>

<template>
  <ul class="lines">
    <li v-for="(l, i) in lines" :key="i" :data-base-line="l.ingredient">
      <el-select
        :model-value="l.ingredient"
        filterable
        class="what"
        :aria-label="`Ingredient of line ${i + 1}`"
        @update:model-value="change(i, $event as string)">
        <el-option v-for="o in bases.ingredients" :key="o.id" :value="o.id" :label="o.name" />
      </el-select>
      <AmountField class="much" :label="`Amount of line ${i + 1}`" :model-value="l.amount" :unit="l.unit" free @read="typed(i, $event)" />
      <el-select :model-value="l.unit" class="unit" :aria-label="`Unit of line ${i + 1}`" @update:model-value="measure(l, $event as Schemas['Unit'])"
        ><el-option v-for="u in units(l.ingredient)" :key="u" :value="u" :label="unitLabels[u]"
      /></el-select>
      <el-select
        v-if="l.unit === 'cup' && ways(l.ingredient)"
        :model-value="l.flour_method ?? ways(l.ingredient)?.[0]"
        class="cup"
        :aria-label="`How the flour of line ${i + 1} gets into the cup`"
        @update:model-value="l.flour_method = $event"
        ><el-option v-for="m in flourMethods" :key="m.value" :value="m.value" :label="m.label"
      /></el-select>
      <el-select v-if="l.fill" v-model="l.fill" class="cup" :aria-label="`How full the spoon of line ${i + 1} is`"
        ><el-option v-for="f in fills" :key="f.value" :value="f.value" :label="f.label"
      /></el-select>
      <el-dropdown v-if="standIns" trigger="click" @command="put(i, Number($event))" @visible-change="opened($event, i)">
        <el-button class="ghost" :aria-label="`What can stand in for line ${i + 1}`" title="What can stand in for it"
          ><Icon name="swap" :size="18"
        /></el-button>
        <template #dropdown>
          <el-dropdown-menu class="swaps">
            <el-dropdown-item v-for="(s, n) in swaps" :key="s.label" :command="n"
              ><span
                ><b>{{ s.label }}</b> {{ s.lines.map((x) => `${x.amount.toFixed(0)} g`).join(' + ') }}<br /><small>{{ s.says }}</small></span
              ></el-dropdown-item
            >
            <el-dropdown-item v-if="!swaps?.length" disabled>{{ swaps ? 'Nothing stands in for it here' : 'Looking' }}</el-dropdown-item>
          </el-dropdown-menu>
        </template>
      </el-dropdown>
      <el-button class="ghost" :aria-label="`Take out line ${i + 1}`" @click="lines.splice(i, 1)"><Icon name="bin" :size="18" /></el-button>
      <p v-if="faults[`/lines/${i}/amount`] || faults[`/lines/${i}/unit`] || faults[`/lines/${i}/ingredient`]" class="fault" role="alert">
        {{ faults[`/lines/${i}/amount`] ?? faults[`/lines/${i}/unit`] ?? faults[`/lines/${i}/ingredient`] }}
      </p>
    </li>
  </ul>
  <el-button class="dashed" @click="lines.push({ ingredient: first ?? 'plain_flour', amount: 100, unit: 'g' })"
    ><Icon name="plus" />Add a line</el-button
  >
</template>

<style scoped>
.lines {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.what {
  flex: 1 1 170px;
  min-width: 0;
}
.much {
  width: 84px;
}
li :deep(.el-input__wrapper),
li :deep(.el-select__wrapper) {
  padding: 0 var(--s2);
}
.unit {
  width: 84px;
}
.cup {
  width: 132px;
}
.ghost {
  width: var(--touch);
  padding: 0;
}
.fault {
  width: 100%;
  color: var(--beet);
  font-size: var(--t-mini);
}
.dashed {
  margin-top: var(--s2);
  width: 100%;
}
</style>
<style>
.swaps .el-dropdown-menu__item {
  padding: 6px 14px;
  line-height: 1.25;
}
.swaps small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
</style>
