<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useKitchen } from '@/kitchen/kitchen'
import { useBench } from '@/bench/bench'

import AmountField from '@/parts/AmountField.vue'

const props = defineProps<{ volumeMl: number }>()
const bench = useBench()
const choices = computed(() => bench.ladles ?? [])
const kitchen = useKitchen()
const keyOf = (c: Schemas['PortionChoice']) => (c.ladle_id ? `ladle:${c.ladle_id}` : `scoop:${c.scoop_no}`)
const oneCake = 'one cake'
const mayBeOne = computed(() => !!bench.sheet?.portion.may_be_one_cake)
const chosen = computed({
  get: () => {
    const p = bench.doc?.portion
    if (p?.one_cake) return oneCake
    if (p?.volume_ml === undefined && p?.scoop_no) return `scoop:${p.scoop_no}`
    if (p?.volume_ml === undefined && p?.ladle_id) return `ladle:${p.ladle_id}`
    const same = choices.value.find((c) => c.volume_ml === props.volumeMl)
    return same ? keyOf(same) : ''
  },
  set: (v: string) => {
    if (v === oneCake) return bench.change((d) => (d.portion = { one_cake: true }))
    const c = choices.value.find((x) => keyOf(x) === v)
    if (!c) return
    bench.change((d) => {
      const count = d.portion?.count
      d.portion = { ...(count === undefined ? {} : { count }), ...(c.ladle_id ? { ladle_id: c.ladle_id } : { scoop_no: c.scoop_no }) }
    })
  },
})
const gives = (c: Schemas['PortionChoice']) =>
  `${c.volume_ml.toFixed(0)} ml · ${c.count} portions${c.diameter_mm ? ` · ${c.diameter_mm.toFixed(0)} mm` : ''}`
const ml = computed({
  get: () => Number(props.volumeMl.toFixed(1)),
  set: (v: number | undefined) =>
    v && bench.change((d) => (d.portion = { ...(d.portion?.count === undefined ? {} : { count: d.portion.count }), volume_ml: v })),
})
</script>

<template>
  <div class="ladle">
    <el-select
      v-model="chosen"
      aria-label="Ladle or scoop"
      placeholder="Ladle"
      popper-class="ladle-list"
      :fit-input-width="false"
      @visible-change="bench.include('choices', $event)">
      <el-option v-for="c in choices" :key="keyOf(c)" :value="keyOf(c)" :label="c.name"
        ><span class="choice"
          >{{ c.name }} <small>{{ gives(c) }}</small></span
        ></el-option
      >
      <el-option v-if="mayBeOne" :value="oneCake" label="One cake"
        ><span class="choice">One cake <small>the whole bowl, rim to rim of a round pan</small></span></el-option
      >
    </el-select>
    <span v-if="bench.doc?.portion?.one_cake" class="muted">{{ volumeMl.toFixed(0) }} ml</span>
    <AmountField v-else v-model="ml" class="ml" unit="ml" label="Portion in ml" :limits="kitchen.form?.limits.volume_ml" /><span
      v-if="!bench.doc?.portion?.one_cake"
      class="muted"
      >ml</span
    >
  </div>
</template>

<style scoped>
.ladle {
  display: flex;
  align-items: center;
  gap: 6px;
}
.el-select {
  flex: 1;
  min-width: 0;
}
.ml {
  width: 62px;
}
.choice {
  display: flex;
  justify-content: space-between;
  gap: var(--s4);
}
.choice small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
</style>

<style>
.ladle-list .el-select-dropdown__item {
  height: 44px;
  line-height: 44px;
}
</style>
