<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '@/api/client'
import ReadLine from './ReadLine.vue'
import { placesOf, useGroups, type Fixes, type Rivals, type Row } from './reading'

/** What was read, by where it goes; up and down go from line to line. */
const { reading, fixes, trouble, first } = defineProps<{
  reading: Schemas['Reading']
  fixes: Fixes
  trouble: Record<number, string>
  first: Record<number, string | undefined> // what each line was taken for before it was put right
}>()
const emit = defineEmits<{ fix: [at: number, patch: Partial<Schemas['ReadingFix']>]; show: [span: number[]]; teach: [at: number] }>()
const groups = useGroups(
  toRef(() => reading),
  toRef(() => fixes),
)
const places = computed(() => placesOf(reading))
/** What is asked of two lines, at the first of them. */
const rivals = computed(() =>
  Object.fromEntries(
    (reading.questions ?? []).map((q): [number, Rivals] => [q.lines[0]!, { lines: [q.lines[0]!, q.lines[1]!], amounts: q.amounts }]),
  ),
)
/** Both amounts count: each line is right as it is. */
const both = (of: Rivals) => of.lines.forEach((at) => emit('fix', at, {}))
const only = (of: Rivals, at: number) => of.lines.forEach((one) => emit('fix', one, one === at ? {} : { leave_out: true }))
/** A line that was taken for something else, or for nothing, says a word of the kitchen's own. */
const teaches = (row: Row) => !!row.fix?.ingredient && !!row.line.called && row.at in first && first[row.at] !== row.fix.ingredient
const root = ref<HTMLElement>()
function step(e: KeyboardEvent, by: number) {
  const li = (e.target as HTMLElement).closest('li')
  if (!li || (e.target as HTMLElement).closest('.el-select, textarea')) return
  const all = [...(root.value?.querySelectorAll('li') ?? [])]
  const to = all[all.indexOf(li) + by]
  if (!to) return
  e.preventDefault()
  to.querySelector<HTMLElement>('.much input, input')?.focus()
  to.scrollIntoView({ block: 'nearest' })
}
</script>

<template>
  <div ref="root" class="read" @keydown.down="step($event, 1)" @keydown.up="step($event, -1)">
    <section v-for="g in groups" :key="g.key" :data-group="g.key" :aria-label="g.name">
      <h3>
        {{ g.name }}<small v-if="g.says && g.key !== 'bowl'">{{ g.says }}</small>
      </h3>
      <ul>
        <ReadLine
          v-for="row in g.rows"
          :key="row.at"
          :row="row"
          :places="places"
          :trouble="trouble[row.at]"
          :rivals="rivals[row.at]"
          :teaches="teaches(row)"
          @fix="emit('fix', row.at, $event)"
          @show="emit('show', $event)"
          @teach="emit('teach', row.at)"
          @both="both(rivals[row.at]!)"
          @only="only(rivals[row.at]!, $event)" />
      </ul>
    </section>
    <details v-if="reading.also_heard?.length" class="heard">
      <summary>Also heard, and not taken: {{ reading.also_heard.length }}</summary>
      <p>Denied, compared with, or what others use. A tap shows where.</p>
      <el-button v-for="(h, i) in reading.also_heard" :key="i" @click="emit('show', h.span)">{{ h.text }}</el-button>
    </details>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 2px;
  display: grid;
  gap: 6px;
}
h3 {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--s2);
  margin: 0;
  padding: var(--s2) 2px var(--s1);
  font-size: var(--t-body);
}
section:first-child h3 {
  padding-top: 0;
}
h3 small {
  color: var(--ink-2);
  font-size: var(--t-mini);
  font-weight: 400;
}
.heard {
  padding: var(--s2) 2px;
}
.heard summary {
  min-height: var(--touch);
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 600;
}
.heard summary::before {
  content: '+';
  width: 1.2em;
}
.heard[open] summary::before {
  content: '−';
}
.heard p {
  color: var(--ink-2);
  font-size: var(--t-mini);
  padding-bottom: var(--s1);
}
</style>
