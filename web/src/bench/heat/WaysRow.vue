<script setup lang="ts">
import { computed } from 'vue'
import { clock } from '@/parts/clock'
import { useHeat, type Cook } from './heat'

/** One heat, a hot start, or a heat in steps; our minutes, or the cook's own. */
const props = defineProps<{ cook: Cook; iron: boolean; hot: boolean }>()
const steps = defineModel<boolean>('steps', { required: true })
const heat = useHeat()
const way = computed(() => (steps.value ? 'steps' : props.hot ? 'hot' : 'one'))
function choose(w: unknown) {
  steps.value = w === 'steps'
  heat.wish({ hot_start: w === 'hot', ...(w === 'steps' ? {} : { heat: undefined }) })
}
const own = computed(() => props.cook.own)
const mine = computed(() => {
  if (own.value?.from !== 'said' || own.value.state !== 'offered') return 'my own'
  const { first_side_s: first, second_side_s: second } = own.value
  return `the recipe's ${clock(first)}${second === undefined ? '' : ` and ${clock(second)}`}`
})
function minutes(m: unknown) {
  if (m === 'mine') heat.useOwn()
  else heat.takeOurs()
}
</script>

<template>
  <section class="ways" aria-label="How it is heated, and whose minutes">
    <span class="way">
      <b>Heat</b>
      <el-radio-group :model-value="way" class="pick" aria-label="How it is heated" @update:model-value="choose">
        <el-radio-button value="one">one heat</el-radio-button>
        <el-radio-button
          v-if="!iron && (hot || cook.second_side_s !== undefined)"
          value="hot"
          title="Hot for the first moments, then lower: it sets the round edge"
          >hot start</el-radio-button
        >
        <el-radio-button value="steps" title="Another heat while mixing, at the pour or at the flip">in steps</el-radio-button>
      </el-radio-group>
    </span>
    <span v-if="own" class="way">
      <b>Minutes</b>
      <el-radio-group :model-value="own.state === 'offered' ? 'ours' : 'mine'" class="pick" aria-label="Whose minutes" @update:model-value="minutes">
        <el-radio-button value="ours">worked out</el-radio-button>
        <el-radio-button value="mine">{{ mine }}</el-radio-button>
      </el-radio-group>
    </span>
  </section>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s5);
}
.way {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s3);
}
b {
  font-size: var(--t-lead);
}
</style>
