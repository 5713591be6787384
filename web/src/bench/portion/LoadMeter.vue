<script setup lang="ts">
import { ask } from '@/parts/ask'
import { useAsked } from '@/parts/useAsked'
import { computed, ref, watch } from 'vue'
import { say } from '@/parts/say'
import type { Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'
import TrackSlider from '@/parts/TrackSlider.vue'

const props = defineProps<{ load: Schemas['Load']; line: string; label: string }>()
const bench = useBench()
const percent = computed(() => 100 * props.load.volume_fraction)
const end = computed(() => Math.max(160 * props.load.ceiling, percent.value, 1))

const wish = ref<number>()
const question = useAsked(
  async () => {
    if (wish.value === undefined || !bench.doc) return
    const { amount_g } = await ask('/loads', { variation: bench.doc, line: props.line, volume_fraction: Math.max(0.001, wish.value / 100) })
    bench.changeAddition(props.line, { amount: amount_g, unit: 'g' })
  },
  { meanwhile: 'next' },
)
watch(question.asking, (on) => !on && (wish.value = undefined))
watch(question.trouble, (t) => t && say({ message: t, grouping: true }))
function set(to: number) {
  wish.value = to
  void question.now()
}
</script>

<template>
  <div class="meter" :class="load.verdict" :data-load="load.verdict">
    <p>
      <button type="button" @click="bench.why = { figure: 'load' }">
        <b>Load {{ percent.toFixed(percent < 10 ? 1 : 0) }} %</b></button
      ><span><i v-if="load.verdict === 'over'" class="sign high" />{{ load.text }}</span>
    </p>
    <div class="bar">
      <i class="full" :style="{ width: `${(100 * (wish ?? percent)) / end}%` }" />
      <i class="hatch" :style="{ left: `${(100 * 100 * load.ceiling) / end}%` }" />
      <TrackSlider :value="wish ?? percent" :min="0" :max="end" :step="0.2" :label="`Load of ${label}, per cent of a portion`" @change="set" />
    </div>
  </div>
</template>

<style scoped>
p {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: var(--s2);
  font-size: var(--t-mini);
  color: var(--ink-2);
}
p button {
  border: 0;
  background: none;
  padding: 0;
  min-height: var(--touch);
  cursor: pointer;
  border-radius: var(--s2);
}
p b {
  color: var(--ink);
  font-size: 14px;
  white-space: nowrap;
}
.over p span {
  color: var(--beet);
  font-weight: 650;
  display: inline-flex;
  gap: 5px;
  align-items: center;
}
.bar {
  position: relative;
  height: 32px;
  margin-top: -10px;
}
.bar::before {
  content: '';
  position: absolute;
  inset: 9px 0;
  border-radius: var(--r-pill);
  background: var(--well-2);
}
.full {
  position: absolute;
  left: 0;
  top: 9px;
  height: 14px;
  border-radius: var(--r-pill);
  background: var(--nut);
  border: 1.5px solid var(--ink);
  min-width: 14px;
}
.over .full {
  background: var(--beet);
}
.hatch {
  position: absolute;
  right: 0;
  top: 9px;
  height: 14px;
  border-left: 3px solid var(--beet);
  border-radius: 0 var(--s2) var(--s2) 0;
  background: repeating-linear-gradient(115deg, var(--beet-wash) 0 7px, var(--beet) 7px 8.5px);
  opacity: 0.75;
}
</style>
