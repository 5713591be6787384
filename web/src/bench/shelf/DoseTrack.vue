<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import TrackSlider from '@/parts/TrackSlider.vue'

const props = defineProps<{ dose: Schemas['Dose']; grams: number; label: string }>()
const emit = defineEmits<{ 'update:grams': [grams: number] }>()

// The track never ends below what is in the bowl, so that a bold hand keeps its slider.
const end = computed(() => Math.max(props.dose.max_g, props.grams))
const share = (g: number) => `${(100 * Math.min(g, end.value)) / end.value}%`
const box = computed(() => ({ left: share(props.dose.light_g), right: `calc(100% - ${share(props.dose.bold_g)})` }))
const ends = computed(() => ({ 'padding-left': share(props.dose.light_g), 'padding-right': `calc(100% - ${share(props.dose.bold_g)})` }))
const past = computed(() => ({ left: share(props.dose.bold_g), right: '0' }))
</script>

<template>
  <div class="dose">
    <i class="hatch" :style="past" />
    <i class="usual" :style="box" />
    <TrackSlider
      :value="grams"
      :min="0"
      :max="end"
      :step="dose.step_g"
      :beyond="dose.word === 'past bold'"
      :label="`${label}, amount in grams`"
      @change="emit('update:grams', $event)" />
    <p class="ends" :style="ends">
      <span :class="{ on: dose.word === 'light' }">light</span><span :class="{ on: dose.word === 'usual' }">usual</span
      ><span :class="{ on: dose.word === 'bold' }">bold</span>
      <span v-if="dose.word === 'past bold'" class="on out"><i class="sign high" />past bold</span>
    </p>
  </div>
</template>

<style scoped>
.dose {
  position: relative;
  padding: 0 2px;
}
.usual {
  position: absolute;
  top: 11px;
  height: 14px;
  border: 2px solid var(--leaf);
  background: var(--leaf-wash);
  border-radius: 2px;
}
.hatch {
  position: absolute;
  top: 13px;
  height: 10px;
  border-radius: 0 var(--s1) var(--s1) 0;
  background: repeating-linear-gradient(115deg, var(--beet-wash) 0 6px, var(--beet) 6px 7.5px);
  opacity: 0.6;
}
.dose::before {
  content: '';
  position: absolute;
  left: 2px;
  right: 2px;
  top: 14px;
  height: 8px;
  border-radius: var(--s1);
  background: var(--well-2);
}
.ends {
  display: flex;
  justify-content: space-between;
  font-size: var(--t-mini);
  color: var(--ink-2);
  line-height: 1.1;
}
.ends .on {
  color: var(--leaf);
  font-weight: 700;
}
.ends .out {
  position: absolute;
  right: 0;
  color: var(--beet);
  display: inline-flex;
  align-items: center;
  gap: var(--s1);
}
</style>
