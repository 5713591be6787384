<script setup lang="ts">
import { computed } from 'vue'
import Icon from '@/parts/Icon.vue'
import StepButton from '@/parts/StepButton.vue'
import { onStep, unbroken } from '@/parts/figures'
import { unitsShown } from '@/parts/settings'
import { useBench } from '@/bench/bench'

/** What is in hand, over the bar of a phone. */
const emit = defineEmits<{ open: [] }>()
const bench = useBench()
const hand = computed(() => bench.shelf.find((s) => s.addition.id === bench.active) ?? bench.shelf[0])
const label = computed(() => hand.value?.line?.label ?? hand.value?.addition.ingredient ?? '')
</script>

<template>
  <section class="dock" aria-label="In hand">
    <template v-if="hand?.line">
      <b>{{ label }}</b><output v-if="unitsShown === 'cups' && hand.line.measure" class="cups">{{ unbroken(hand.line.measure) }}</output>
      <output v-else>{{ onStep(hand.line.weigh_g, hand.line.decimals) }}<small> g</small></output>
      <StepButton :label="`Less ${label}`" icon="minus" @step="bench.step(hand.line.id, -1)" />
      <StepButton :label="`More ${label}`" icon="plus" @step="bench.step(hand.line.id, 1)" />
    </template>
    <b v-else>{{ hand ? label : 'Nothing added yet' }}</b>
    <el-button class="open" :aria-label="`Shelf, ${bench.shelf.length} added`" @click="emit('open')"
      ><Icon name="plus" /><span v-if="!hand">Add</span><Icon v-else name="list"
    /></el-button>
  </section>
</template>

<style scoped>
.dock {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 56px;
  padding: 4px 6px 4px var(--s3);
  background: var(--yolk-wash);
  border: 2px solid var(--ink);
  border-radius: var(--r-well);
}
b {
  flex: 1;
  min-width: 0;
  line-height: 1.1;
  overflow-wrap: anywhere;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
}
output {
  font-size: 24px;
  font-weight: 750;
  white-space: nowrap;
}
.cups {
  font-size: var(--t-body);
  white-space: normal;
  max-width: 110px;
  line-height: 1.1;
  text-align: right;
}
small {
  font-size: 14px;
  font-weight: 500;
}
.open {
  flex: none;
  padding: 0 10px;
}
</style>
