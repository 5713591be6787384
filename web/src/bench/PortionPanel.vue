<script setup lang="ts">
import { computed, ref } from 'vue'
import { ElMessage } from 'element-plus'
import type { Worksheet } from '@/api/client'
import { useBench } from './bench'
import Icon from '@/parts/Icon.vue'
import LadlePicker from './LadlePicker.vue'
import PortionDrawing from './PortionDrawing.vue'
import ScaleDialog from './ScaleDialog.vue'

const props = defineProps<{ sheet: Worksheet }>()
const bench = useBench()
const p = computed(() => props.sheet.portion)
const scaleOpen = ref(false)
async function toCount(count: number) {
  try {
    const said = await bench.scale({ count })
    if (said.length) ElMessage({ message: said.join(' '), duration: 6000, grouping: true })
  } catch (e) {
    ElMessage((e as Error).message)
  }
}
const words = computed(() => `One portion to scale: ${p.value.diameter_mm?.toFixed(0)} mm across, ${p.value.poured_mm?.toFixed(1)} mm thick when poured`)
</script>

<template>
  <section class="panel portion" aria-label="Portion">
    <header>
      <h2>Portion</h2>
      <p class="end">{{ p.diameter_mm ? 'one as poured, to scale' : '' }}</p>
    </header>
    <div class="draw">
      <PortionDrawing v-if="p.diameter_mm && p.poured_mm" :diameter-mm="p.diameter_mm" :poured-mm="p.poured_mm" :words="words" :colour="sheet.batter.colour?.hex" />
      <p v-else class="well none">{{ p.reason }}</p>
      <p v-if="sheet.batter.colour" class="tint"><i :style="{ background: sheet.batter.colour.hex }" />{{ sheet.batter.colour.reason }}</p>
    </div>
    <div class="count well">
      <el-button :aria-label="`${p.count - 1} portions`" :disabled="p.count < 2" @click="toCount(p.count - 1)"><Icon name="minus" /></el-button>
      <button type="button" class="figure" aria-label="How many portions. Why?" @click="bench.why = '/portion/count'"><b>{{ p.count }}</b>portions</button>
      <el-button :aria-label="`${p.count + 1} portions`" @click="toCount(p.count + 1)"><Icon name="plus" /></el-button>
      <el-button aria-label="Scale the batch" title="Scale the batch" @click="scaleOpen = true"><Icon name="resize" /></el-button>
    </div>
    <dl class="facts">
      <div class="well"><dd>{{ p.mass_g.toFixed(0) }} g</dd><dt>in each</dt></div>
      <div class="well"><dd>{{ p.poured_mm ? `${p.poured_mm.toFixed(1)} mm` : `${p.volume_ml.toFixed(0)} ml` }}</dd><dt>{{ p.poured_mm ? 'thick, poured' : 'in each' }}</dt></div>
      <div class="well"><dd>{{ p.left_over_ml.toFixed(0) }} ml</dd><dt>left over</dt></div>
    </dl>
    <LadlePicker class="ladle" :volume-ml="p.volume_ml" />
    <ScaleDialog v-model="scaleOpen" />
  </section>
</template>

<style scoped>
.portion { display: flex; flex-direction: column; overflow: auto; }
.draw { padding: var(--s2) var(--s3) 0; display: grid; place-items: center; }
.draw svg { display: block; max-width: 100%; }
.none { width: 100%; padding: var(--s5) var(--s4); color: var(--ink-2); text-align: center; }
.tint { display: flex; align-items: center; gap: var(--s2); font-size: var(--t-mini); color: var(--ink-2); }
.tint i { width: 14px; height: 14px; border-radius: 4px; border: 1px solid var(--edge); }
.count { display: flex; align-items: center; gap: 6px; margin: var(--s2) var(--s3) 0; padding: 6px; }
.count .el-button { width: var(--touch); padding: 0; flex: none; }
.figure { flex: 1; min-height: var(--touch); border: 0; background: none; cursor: pointer; font-size: var(--t-mini); color: var(--ink-2); border-radius: var(--r-ctl); }
.figure b { display: block; font-size: var(--t-figure); line-height: 1; color: var(--ink); font-weight: 780; }
.facts { display: grid; grid-template-columns: repeat(3, 1fr); gap: 6px; margin: 6px var(--s3) 0; }
.facts div { padding: var(--s2) 6px; text-align: center; }
dt { font-size: var(--t-mini); color: var(--ink-2); }
dd { margin: 0; font-size: var(--t-lead); font-weight: 750; line-height: 1.1; }
.ladle { margin: auto var(--s3) var(--s3); padding-top: var(--s3); }
@media (max-width: 900px) {
  .portion { display: grid; grid-template: auto auto auto 1fr / auto 1fr; overflow: visible; }
  .portion > header { grid-column: 1 / -1; }
  .draw { grid-row: 2 / 5; padding-bottom: var(--s3); }
  .ladle { margin-top: 0; }
}
@media (max-width: 560px) {
  .portion { display: flex; }
}
</style>
