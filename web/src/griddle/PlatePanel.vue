<script setup lang="ts">
import { computed } from 'vue'
import StepButton from '@/parts/StepButton.vue'
import PlaceButton from './PlaceButton.vue'
import { useBoard, type Plate } from './board'

/** A plate, a pan or an iron to scale, with its heat and what is poured on it. */
const props = defineProps<{ plate: Plate; flow?: boolean }>()
const emit = defineEmits<{ add: [] }>()
const board = useBoard()
const bowl = computed(() => board.bowls.get(props.plate.bowl ?? ''))
const line = computed(() => props.plate.line.map((k) => board.bowls.get(k)?.name).filter(Boolean))
const reads = computed(() => board.reads(props.plate.id))
const figure = computed(() => reads.value?.text ?? bowl.value?.heat_text ?? '–')
const wanted = computed(() => {
  const b = bowl.value
  if (!b) return ''
  const heat = b.window ? `${b.window}` : b.heat_text
  return b.dial ? `${heat}, ${b.dial}` : heat
})
const setUse = (n: number) => board.tell({ kind: 'uses', plate: props.plate.id, count: n }, `${n} places`)
const at = (x: number, of: number) => `${(100 * x) / of}%`
</script>

<template>
  <section class="panel plate" :class="{ iron: plate.iron }" :aria-label="plate.name" :data-plate="plate.id">
    <header class="head">
      <b class="heat"><small v-if="!reads && bowl">set</small> {{ figure }}</b>
      <div class="who">
        <h2><i v-if="bowl" class="sign" :class="reads?.stands ?? 'unknown'" />{{ plate.name }}</h2>
        <small>{{ wanted }}</small>
      </div>
      <div v-if="bowl && plate.fit > 1 && !plate.iron" class="use" role="group" :aria-label="`Places in use on ${plate.name}`">
        <StepButton icon="minus" label="One place less" :disabled="plate.use <= 1" @step="setUse(plate.use - 1)" />
        <span
          ><b>{{ plate.use }}</b> of {{ plate.fit }}</span
        >
        <StepButton icon="plus" label="One place more" :disabled="plate.use >= plate.fit" @step="setUse(plate.use + 1)" />
      </div>
    </header>
    <p v-if="plate.mind" class="mind"><i class="sign high" />{{ plate.mind }}</p>
    <div v-if="bowl" class="what">
      <p>
        <b>{{ bowl.name }}</b> <span>{{ bowl.poured }} of {{ bowl.count }} poured</span
        ><template v-if="line.length">, then {{ line.join(', ') }}</template>
      </p>
      <p class="contains">{{ bowl.allergen_text }}</p>
      <p v-if="bowl.served_text" class="contains">With what goes on: {{ bowl.served_text }}</p>
      <p v-for="w in bowl.warnings" :key="w" class="contains"><i class="sign high" /> {{ w }}</p>
    </div>
    <div v-if="bowl" class="metal" :class="{ round: plate.round, flow }" :style="{ '--ratio': plate.width_mm / plate.depth_mm }">
      <div
        v-for="p in plate.places"
        :key="p.place"
        class="spot"
        :style="flow ? {} : { left: at(p.x_mm, plate.width_mm), top: at(p.y_mm, plate.depth_mm), width: at(p.across_mm, plate.width_mm) }">
        <PlaceButton :place="p" :bowl="bowl" :iron="plate.iron" />
      </div>
    </div>
    <p v-if="bowl && plate.says" class="says">{{ plate.says }}</p>
    <div v-if="!bowl" class="empty">
      <p>Nothing is on it.</p>
      <el-button class="dashed" @click="emit('add')">Put a bowl on</el-button>
    </div>
  </section>
</template>

<style scoped>
.plate {
  display: flex;
  flex-direction: column;
  gap: var(--s1);
  padding: var(--s2) var(--s3) var(--s3);
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s3);
  padding: 0;
}
.heat {
  font-size: var(--t-figure);
  font-weight: 780;
  white-space: nowrap;
}
.who,
.what {
  line-height: 1.2;
  overflow-wrap: anywhere;
}
h2 {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: var(--t-lead);
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.use {
  display: flex;
  align-items: center;
  gap: 2px;
  white-space: nowrap;
}
.mind {
  display: flex;
  gap: 6px;
  align-items: baseline;
  padding: var(--s1) var(--s2);
  border-radius: var(--s2);
  background: var(--beet-wash);
  font-size: var(--t-mini);
}
.contains {
  color: var(--ink-2);
  font-size: var(--t-mini);
  line-height: 1.2;
}
.metal {
  position: relative;
  width: min(100%, calc(var(--most, 255px) * var(--ratio)));
  margin: 0 auto;
  aspect-ratio: var(--ratio);
  border: 4px solid var(--steel-2);
  border-radius: 18px;
  background: var(--steel);
}
.metal.round:not(.flow) {
  border-radius: 50%;
}
.iron .metal {
  border-color: transparent;
  background: none;
}
.spot {
  position: absolute;
  translate: -50% -50%;
  padding: 1px;
}
.metal.flow {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: var(--s2);
  width: 100%;
  padding: var(--s2);
  aspect-ratio: auto;
}
.metal.flow .spot {
  position: static;
  translate: none;
}
.says {
  font-weight: 650;
  text-align: center;
}
.empty {
  flex: 1;
  display: grid;
  place-items: center;
  align-content: center;
  gap: var(--s2);
  min-height: 120px;
  color: var(--ink-2);
}
</style>
