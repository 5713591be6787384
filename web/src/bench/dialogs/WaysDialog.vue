<script setup lang="ts">
import { computed, watch } from 'vue'
import { useBench } from '@/bench/bench'
import { strategies } from '@/bench/choices'

const shown = defineModel<boolean>({ required: true })
const bench = useBench()
watch(shown, (open) => bench.include('strategies', open), { immediate: true })
const ways = computed(() => strategies.map((s) => ({ ...s, preview: bench.sheet?.strategies?.find((p) => p.strategy === s.value) })))
const chosen = computed(() => bench.doc?.offset?.strategy ?? 'hold_back_liquid')

function choose(value: (typeof strategies)[number]['value']) {
  bench.change((d) => (d.offset = { ...d.offset, strategy: value }))
  shown.value = false
}
</script>

<template>
  <el-dialog v-model="shown" append-to-body title="What each way would do" width="min(760px, 96vw)">
    <ul class="rows">
      <li v-for="w in ways" :key="w.value" class="well" :class="{ here: w.value === chosen }" :data-way="w.value">
        <div>
          <b>{{ w.label }}</b> <small>{{ w.does }}</small>
          <p class="lead">{{ w.preview?.lead ?? 'Working it out' }}</p>
        </div>
        <dl v-if="w.preview">
          <dt>portions</dt>
          <dd>{{ w.preview.count }}</dd>
          <dt>thickness</dt>
          <dd>{{ w.preview.thickness.toFixed(2) }}</dd>
          <dt>sweetness</dt>
          <dd>{{ w.preview.sweetness.toFixed(1) }}</dd>
        </dl>
        <span v-if="w.preview?.left" class="chip beet"><i class="sign high" />{{ w.preview.left }} not met</span>
        <el-button :disabled="w.value === chosen" @click="choose(w.value)">{{ w.value === chosen ? 'chosen' : 'Take it' }}</el-button>
      </li>
    </ul>
  </el-dialog>
</template>

<style scoped>
li > div {
  flex: 1;
  min-width: 0;
}
li.here {
  box-shadow: inset 0 0 0 2px var(--ink);
}
b {
  font-size: var(--t-lead);
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.lead {
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: auto auto;
  column-gap: var(--s2);
  margin: 0;
  font-size: var(--t-mini);
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
  text-align: right;
  font-weight: 700;
}
</style>
