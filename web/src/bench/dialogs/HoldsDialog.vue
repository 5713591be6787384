<script setup lang="ts">
import { computed } from 'vue'
import { useBench } from '@/bench/bench'
import { holds } from '@/bench/choices'

const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const held = computed({
  get: () => bench.doc?.offset?.hold ?? bench.sheet?.held ?? [],
  set: (v) => bench.change((d) => (d.offset = { ...d.offset, hold: holds.map((h) => h.value).filter((h) => v.includes(h)) })),
})
const sugarBy = computed({
  get: () => bench.doc?.offset?.sugar_by ?? 'sweetness',
  set: (v) => bench.change((d) => (d.offset = { ...d.offset, sugar_by: v })),
})
/** What may give way below its floor. */
const floors = [
  { role: 'liquid', says: 'A third of the milk always stays' },
  { role: 'flour', says: 'A third of the flour always stays' },
  { role: 'fat', says: 'Half of the fat always stays' },
] as const
const low = computed(() => [...(bench.doc?.offset?.allow_low ?? []), ...(bench.doc?.offset?.allow_low_liquid ? ['liquid' as const] : [])])
function keepFloor(role: (typeof floors)[number]['role'], stays: boolean) {
  const roles = floors.map((f) => f.role).filter((r) => (r === role ? !stays : low.value.includes(r)))
  bench.change((d) => {
    d.offset = { ...d.offset, allow_low: roles }
    delete d.offset.allow_low_liquid
    if (!roles.length) delete d.offset.allow_low
  })
}
</script>

<template>
  <el-dialog v-model="shown" append-to-body title="What stays where the base had it" width="min(520px, 96vw)">
    <el-checkbox-group v-model="held" class="holds" aria-label="What to hold">
      <el-checkbox v-for="h in holds" :key="h.value" :value="h.value"
        ><b>{{ h.label }}</b> <span>{{ h.does }}</span></el-checkbox
      >
    </el-checkbox-group>
    <p class="row">
      <span id="sugar-by">Sugar is held by</span>
      <el-radio-group v-model="sugarBy" class="pick" aria-labelledby="sugar-by">
        <el-radio-button value="sweetness">taste</el-radio-button><el-radio-button value="total_sugars">all sugars</el-radio-button>
      </el-radio-group>
    </p>
    <p v-for="f in floors" :key="f.role" class="row">
      <span>{{ f.says }}</span><el-switch
        :model-value="!low.includes(f.role)"
        :aria-label="f.says"
        @update:model-value="keepFloor(f.role, $event as boolean)" />
    </p>
  </el-dialog>
</template>

<style scoped>
.holds {
  display: grid;
  grid-template-columns: 1fr;
}
.holds .el-checkbox {
  min-height: var(--touch);
  margin: 0;
}
.holds span {
  color: var(--ink-2);
}
.row {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s3);
  min-height: var(--touch);
  margin-top: var(--s2);
}
</style>
