<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { fills, unitLabels } from '@/bench/choices'
import AmountField from '@/parts/AmountField.vue'
import Icon from '@/parts/Icon.vue'
import { useBases } from './bases'
import type { Place, Rivals, Row } from './reading'

/** A line of what was read: what it is, how much, where it goes, and what is asked of it. */
const { row, places, trouble, rivals, teaches } = defineProps<{
  row: Row
  places: { value: Place; label: string }[]
  trouble?: string
  rivals?: Rivals // it, and the line that has another amount of the same
  teaches?: boolean // it was put right, and its word can be learned
}>()
const emit = defineEmits<{ fix: [patch: Partial<Schemas['ReadingFix']>]; show: [span: number[]]; both: []; only: [at: number]; teach: [] }>()
const bases = useBases()
const l = computed(() => row.line)
const fix = computed(() => row.fix)
const out = computed(() => !!fix.value?.leave_out)
const signs = { read: 'in_band', unsure: 'unknown', not_understood: 'high' } as const
const statusWords = { read: 'read', unsure: 'not sure', not_understood: 'not understood' } as const
const ingredient = computed(() => fix.value?.ingredient ?? l.value.ingredient)
const unit = computed(() => fix.value?.unit ?? l.value.unit ?? 'g')
/** The units that fit what it is, and the one that was read. */
const units = computed(
  () => [...new Set([...(bases.ingredients.find((x) => x.id === ingredient.value)?.units ?? ['g', 'each']), unit.value])] as Schemas['Unit'][],
)
const nameOf = (id?: string) => (bases.ingredients.find((x) => x.id === id)?.name ?? '').toLowerCase()
const suggestion = (s: Schemas['ReadingFix']) =>
  `${s.amount} ${unitLabels[s.unit ?? 'g']} ${s.ingredient === l.value.ingredient ? '' : nameOf(s.ingredient)}`.trim()
const timed = computed(() => !!l.value.said_at?.some(Boolean))
const times = computed(() => (l.value.spans ?? []).map((_, i) => l.value.said_at?.[i] || `${i + 1}.`))
</script>

<template>
  <li class="well" :data-status="l.status" :data-read="l.ingredient" :data-place="l.place" :class="{ out }">
    <p class="text">
      <i class="sign" :class="signs[l.status]" /><span class="vh">{{ statusWords[l.status] }}</span
      ><span class="said">{{ l.text }}</span
      ><el-button v-if="l.or && !out" class="or" @click="emit('fix', l.or)">or {{ nameOf(l.or.ingredient) }}</el-button
      ><small v-if="l.each" class="chip rim">for each one</small><small v-if="l.goes_to === 'addition'" class="chip rim">addition</small>
    </p>
    <p v-if="(l.spans?.length ?? 0) > 1 && !out" class="asks again">
      Said {{ timed ? 'at' : '' }}
      <el-button v-for="(span, i) in l.spans" :key="i" :aria-label="`Show where it is said: ${times[i]}`" @click="emit('show', span)">{{
        times[i]
      }}</el-button>
      <el-button :class="{ chosen: fix?.both }" @click="emit('fix', { both: !fix?.both || undefined, amount: undefined, unit: undefined })">{{
        fix?.both ? 'Counted each time' : 'Count it each time'
      }}</el-button>
    </p>
    <div class="row">
      <el-select
        :model-value="ingredient"
        filterable
        placeholder="What is it?"
        :aria-label="`Ingredient of “${l.text}”`"
        class="what"
        @update:model-value="emit('fix', { ingredient: $event as string })"
        ><el-option v-for="o in bases.ingredients" :key="o.id" :value="o.id" :label="o.name"
      /></el-select>
      <el-select
        v-if="l.fill"
        :model-value="fix?.fill ?? l.fill"
        class="unit"
        :aria-label="`How full the spoon of “${l.text}” is`"
        @update:model-value="emit('fix', { fill: $event as Schemas['Fullness'] })"
        ><el-option v-for="f in fills" :key="f.value" :value="f.value" :label="f.label"
      /></el-select>
      <AmountField
        class="much"
        :label="`Amount of “${l.text}”`"
        :model-value="fix?.amount ?? l.amount"
        :unit="unit"
        free
        placeholder="how much"
        @read="emit('fix', $event)" />
      <el-select
        :model-value="unit"
        class="unit"
        :aria-label="`Unit of “${l.text}”`"
        @update:model-value="emit('fix', { unit: $event as Schemas['Unit'] })"
        ><el-option v-for="u in units" :key="u" :value="u" :label="unitLabels[u]"
      /></el-select>
      <el-select
        :model-value="fix?.place ?? l.place ?? 'bowl'"
        class="place"
        :aria-label="`Where “${l.text}” goes`"
        @update:model-value="emit('fix', { place: $event as Place })"
        ><el-option v-for="p in places" :key="p.value" :value="p.value" :label="p.label"
      /></el-select>
      <el-button
        class="ghost"
        :aria-label="out ? `Put “${l.text}” back` : `Leave out “${l.text}”`"
        @click="emit('fix', { leave_out: !out || undefined })"
        ><Icon :name="out ? 'undo' : 'bin'" :size="18"
      /></el-button>
    </div>
    <p v-if="teaches && !out" class="asks">
      <el-button @click="emit('teach')">Always take “{{ l.called }}” for {{ nameOf(ingredient) }}</el-button>
    </p>
    <p v-if="trouble" class="fault" role="alert">{{ trouble }}</p>
    <p v-else-if="rivals && !out" class="asks">
      {{ rivals.amounts[0] }} here, {{ rivals.amounts[1] }} later: both, or only one?
      <el-button @click="emit('both')">Both</el-button>
      <el-button v-for="(at, n) in rivals.lines" :key="at" @click="emit('only', at)">Only {{ rivals.amounts[n] }}</el-button>
    </p>
    <p v-else-if="l.asks && !out" class="asks">
      {{ l.asks }}
      <el-button v-if="l.suggests" @click="emit('fix', l.suggests)">{{ suggestion(l.suggests) }}</el-button>
      <el-button v-if="l.goes_to" @click="emit('fix', {})">It is right</el-button>
    </p>
  </li>
</template>

<style scoped>
li {
  padding: 6px var(--s2);
}
li[data-status='not_understood'] {
  box-shadow: inset 0 0 0 2px var(--beet);
}
li[data-status='unsure'] {
  box-shadow: inset 0 0 0 1.5px var(--edge);
}
li.out {
  opacity: 0.5;
}
.text {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-weight: 600;
  padding-bottom: 4px;
}
.text .said {
  min-width: 0;
  overflow-wrap: anywhere;
}
.text small,
.text .or {
  margin-left: auto;
}
.row {
  display: flex;
  gap: 6px;
  align-items: center;
}
.what {
  flex: 1;
  min-width: 0;
}
.row .much {
  width: 88px;
}
.unit {
  width: 96px;
}
.place {
  width: 124px;
}
.row :deep(.el-input__wrapper),
.row :deep(.el-select__wrapper) {
  padding: 0 var(--s2);
}
.ghost {
  width: var(--touch);
  padding: 0;
}
.asks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s2);
  color: var(--ink-2);
  font-size: var(--t-mini);
  padding-top: 2px;
}
.again {
  padding: 0 0 4px;
}
.again .chosen {
  box-shadow: inset 0 0 0 2px var(--ink);
}
.fault {
  display: flex;
  gap: var(--s2);
  color: var(--beet);
}
@media (max-width: 820px) {
  .row {
    flex-wrap: wrap;
  }
  .what {
    flex-basis: 100%;
  }
}
</style>
