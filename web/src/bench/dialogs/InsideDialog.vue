<script setup lang="ts">
import { computed, watch } from 'vue'
import type { Worksheet } from '@/api/client'
import { useBench } from '@/bench/bench'
import { figure } from '@/parts/figures'

const shown = defineModel<boolean>({ required: true })
const props = defineProps<{ sheet: Worksheet }>()
const emit = defineEmits<{ why: [] }>()
const bench = useBench()
watch(shown, (open) => bench.include('nutrition', open), { immediate: true })
/** What the figures are of. */
const counted = computed(() => {
  const { served, pan_fat_g: fat } = props.sheet
  const of = [served && `${figure(served.toppings_g, 1)} g of what goes on`, fat && `${figure(fat, 1)} g of fat from the pan`].filter(Boolean)
  return of.length ? `With ${of.join(' and ')}` : 'As mixed, no fat of the pan'
})
const rows = computed(() => {
  const p = props.sheet.nutrition_per_portion
  const h = props.sheet.nutrition_per_100g
  if (!p || !h) return []
  return (
    [
      ['Energy', 'energy_kcal', 'kcal', 0],
      ['Fat', 'fat_g', 'g', 1],
      ['Carbohydrate', 'carbohydrate_g', 'g', 1],
      ['of it sugars', 'sugars_g', 'g', 1],
      ['Fibre', 'fibre_g', 'g', 1],
      ['Protein', 'protein_g', 'g', 1],
      ['Salt', 'salt_g', 'g', 2],
      ['Alcohol', 'alcohol_g', 'g', 1],
    ] as const
  ).flatMap(([name, key, unit, decimals]) => {
    const [a, b] = [p[key], h[key]]
    return a === undefined || b === undefined ? [] : [{ name, portion: `${a.toFixed(decimals)} ${unit}`, hundred: `${b.toFixed(decimals)} ${unit}` }]
  })
})
</script>

<template>
  <el-dialog v-model="shown" title="What is in it" width="min(600px, 96vw)" append-to-body>
    <p>{{ sheet.allergen_text }}</p>
    <dl class="allergens">
      <dt>Contains (EU list)</dt>
      <dd>{{ sheet.allergens_eu.join(', ') || 'nothing of the list is named' }}</dd>
      <dt>Contains (US list)</dt>
      <dd>{{ sheet.allergens_us.join(', ') || 'nothing of the list is named' }}</dd>
      <template v-if="sheet.may_contain.length"
        ><dt>Some makes may carry</dt>
        <dd>{{ sheet.may_contain.join(', ') }}</dd></template
      >
    </dl>
    <p class="muted">Check every pack: makes differ. A shared griddle, iron or ladle carries allergens over.</p>
    <table v-if="rows.length">
      <thead>
        <tr>
          <th scope="col">{{ counted }}</th>
          <th scope="col">a portion</th>
          <th scope="col">100 g</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.name">
          <th scope="row">{{ r.name }}</th>
          <td>{{ r.portion }}</td>
          <td>{{ r.hundred }}</td>
        </tr>
      </tbody>
    </table>
    <el-button v-if="rows.length" @click="emit('why')">Why these figures?</el-button>
  </el-dialog>
</template>

<style scoped>
.allergens {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: var(--s1) var(--s4);
  margin: 0 0 var(--s2);
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
  font-weight: 700;
}
table {
  border-collapse: collapse;
  width: 100%;
  margin: var(--s3) 0;
}
th,
td {
  border-top: 1px solid var(--hair);
  padding: 6px 4px;
  text-align: right;
}
th:first-child {
  text-align: left;
  font-weight: 500;
}
thead th {
  color: var(--ink-2);
  font-size: var(--t-mini);
  font-weight: 500;
  border: 0;
}
td {
  font-weight: 700;
}
</style>
