<script setup lang="ts">
import { computed } from 'vue'
import { clock } from '@/parts/clock'
import StepButton from '@/parts/StepButton.vue'
import { useHeat, type Cook, type Side } from './heat'

/** The minutes that the cook has always used: they outrank ours. */
const props = defineProps<{ cook: Cook }>()
const heat = useHeat()
const own = computed(() => props.cook.own!)
const reach = computed(() => props.cook.choices.side_s)
const fields = computed<{ side: Side; name: string; s: number }[]>(() => {
  const { first_side_s: first, second_side_s: second } = own.value
  if (second === undefined) return [{ side: 'first_s', name: 'closed', s: first }]
  return [
    { side: 'first_s', name: 'first side', s: first },
    { side: 'second_s', name: 'second side', s: second },
  ]
})
const by = (side: Side, s: number, step: number) => heat.ownSide(side, Math.min(reach.value.high, Math.max(reach.value.low, s + step)))
</script>

<template>
  <section class="own" :class="own.state" aria-label="Your own minutes">
    <b>Your minutes</b>
    <template v-if="own.state === 'used'">
      <div v-for="f in fields" :key="f.side" class="field" role="group" :aria-label="`Your ${f.name}`">
        <span>{{ f.name }}</span>
        <StepButton icon="minus" :label="`${reach.step} s less, ${f.name}`" @step="by(f.side, f.s, -reach.step)" />
        <output>{{ clock(f.s) }}</output>
        <StepButton icon="plus" :label="`${reach.step} s more, ${f.name}`" @step="by(f.side, f.s, reach.step)" />
      </div>
    </template>
    <p>{{ own.text }}</p>
    <el-button v-if="own.state === 'outside'" @click="heat.useOwn">Use them here too</el-button>
  </section>
</template>

<style scoped>
.own {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s3);
}
b {
  font-size: var(--t-lead);
}
.field {
  display: flex;
  align-items: center;
  gap: var(--s1);
}
.field span {
  color: var(--ink-2);
}
output {
  min-width: 56px;
  text-align: center;
  font-size: var(--t-title);
  font-weight: 750;
}
p {
  flex: 1 1 200px;
  font-size: 14px;
  color: var(--ink-2);
  line-height: 1.25;
}
.el-button {
  margin: 0;
}
</style>
