<script setup lang="ts">
import { ask } from '@/parts/ask'
import { computed, shallowRef, watch } from 'vue'
import { say } from '@/parts/say'
import { said, type Schemas } from '@/api/client'
import { figure, onStep } from '@/parts/figures'
import { asVariation, type Shelved } from './bases'

/** Two bases side by side: traits, then lines. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ a?: Shelved; b?: Shelved }>()
const comparison = shallowRef<Schemas['Comparison']>()
watch(open, async (o) => {
  if (!o || !props.a || !props.b) return
  comparison.value = undefined
  try {
    comparison.value = await ask('/comparisons', { before: asVariation(props.a.document), after: asVariation(props.b.document) })
  } catch (e) {
    say(said(e))
  }
})
const traits = computed(() => {
  const keys = new Map<string, { name: string; unit: string; a?: Schemas['Ratio']; b?: Schemas['Ratio'] }>()
  for (const r of props.a?.fingerprint.ratios ?? []) keys.set(r.key, { name: r.name, unit: r.unit, a: r })
  for (const r of props.b?.fingerprint.ratios ?? []) keys.set(r.key, { ...(keys.get(r.key) ?? { name: r.name, unit: r.unit }), b: r })
  return [...keys.values()]
})
const stands = (r?: Schemas['Ratio']) => (r ? figure(r.value, r.decimals) : '–')
</script>

<template>
  <el-dialog v-model="open" title="Two bases" width="min(820px, 96vw)" append-to-body>
    <table v-if="open && a && b" class="two">
      <thead>
        <tr>
          <th><span class="vh">Trait</span></th>
          <th scope="col">{{ a.document.name }}</th>
          <th scope="col">{{ b.document.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in traits" :key="t.name">
          <th scope="row">
            {{ t.name }} <small>{{ t.unit }}</small>
          </th>
          <td><i v-if="t.a" class="sign" :class="t.a.state" />{{ stands(t.a) }}</td>
          <td><i v-if="t.b" class="sign" :class="t.b.state" />{{ stands(t.b) }}</td>
        </tr>
        <tr v-for="l in comparison?.lines" :key="l.label" class="line">
          <th scope="row">{{ l.label }}</th>
          <td>{{ l.before_g === undefined ? '–' : `${onStep(l.before_g, l.decimals)} g` }}</td>
          <td>{{ l.after_g === undefined ? '–' : `${onStep(l.after_g, l.decimals)} g` }}</td>
        </tr>
      </tbody>
    </table>
  </el-dialog>
</template>

<style scoped>
.two {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  padding: 5px var(--s2) 5px 0;
}
thead th {
  font-weight: 700;
  text-align: right;
}
td {
  text-align: right;
  font-weight: 700;
  white-space: nowrap;
}
td .sign {
  margin-right: var(--s2);
  width: 11px;
  height: 11px;
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
tr + tr {
  border-top: 1px solid var(--hair);
}
.line td {
  font-weight: 500;
}
</style>
