<script setup lang="ts">
import { computed } from 'vue'
import { useKitchen } from '@/kitchen/kitchen'
import { useBench } from './bench'

const props = defineProps<{ volumeMl: number }>()
const bench = useBench()
const kitchen = useKitchen()
const own = computed(() => kitchen.own?.ladles ?? [])
const scoops = [12, 16, 20, 24, 30] // numbers as stamped on the handle; the program knows what they hold
const chosen = computed({
  get: () => {
    const p = bench.doc?.portion
    if (p?.volume_ml === undefined && p?.scoop_no) return `scoop:${p.scoop_no}`
    if (p?.volume_ml === undefined && p?.ladle_id) return `ladle:${p.ladle_id}`
    return own.value.find((l) => l.volume_ml === props.volumeMl) ? `ladle:${own.value.find((l) => l.volume_ml === props.volumeMl)?.id}` : ''
  },
  set: (v: string) => {
    const [kind, id] = v.split(':')
    bench.change((d) => {
      const count = d.portion?.count
      d.portion = { ...(count === undefined ? {} : { count }), ...(kind === 'scoop' ? { scoop_no: Number(id) } : { ladle_id: id }) }
    })
  },
})
const ml = computed({
  get: () => Number(props.volumeMl.toFixed(1)),
  set: (v: number | undefined) => v && bench.change((d) => (d.portion = { ...(d.portion?.count === undefined ? {} : { count: d.portion.count }), volume_ml: v })),
})
</script>

<template>
  <div class="ladle">
    <el-select v-model="chosen" aria-label="Ladle or scoop" placeholder="Ladle">
      <el-option-group v-if="own.length" label="Your ladles">
        <el-option v-for="l in own" :key="l.id" :value="`ladle:${l.id}`" :label="`${l.name}, ${l.volume_ml} ml`" />
      </el-option-group>
      <el-option-group label="Scoops by number">
        <el-option v-for="n in scoops" :key="n" :value="`scoop:${n}`" :label="`Scoop ${n}`" />
      </el-option-group>
    </el-select>
    <el-input-number v-model="ml" :min="5" :max="1000" :step="5" :controls="false" aria-label="Portion in ml" /><span class="muted">ml</span>
  </div>
</template>

<style scoped>
.ladle { display: flex; align-items: center; gap: 6px; }
.el-select { flex: 1; min-width: 0; }
.el-input-number { width: 62px; }
.el-input-number :deep(.el-input__wrapper) { padding: 0 var(--s1); }
</style>
