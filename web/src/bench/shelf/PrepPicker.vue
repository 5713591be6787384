<script setup lang="ts">
import type { Addition, Schemas } from '@/api/client'
import WeightField from '@/parts/WeightField.vue'

/** How an addition is prepared before it goes in, and what it weighed afterwards. */
const props = defineProps<{ addition: Addition; treatments: Schemas['Choice'][]; label: string; haveG: number; preparedG?: number }>()
const emit = defineEmits<{ change: [patch: Partial<Addition>] }>()
const asItIs = 'as_it_is' // an empty value would show as nothing chosen

function pick(id: string) {
  emit('change', { prep: id === asItIs ? undefined : id, measured: undefined })
}
/** What was weighed is the whole amount of the card; the loss is the difference. */
function weighed(g: number | undefined) {
  emit('change', {
    measured: g === undefined ? undefined : { ...props.addition.measured, weight_before_g: props.haveG, weight_after_g: g },
  })
}
</script>

<template>
  <div class="preps" @click.stop>
    <el-select :model-value="addition.prep ?? asItIs" :aria-label="`How ${label} is prepared`" @update:model-value="pick($event as string)">
      <el-option :value="asItIs" label="as it is" />
      <el-option v-for="t in treatments" :key="t.id" :value="t.id" :label="t.label" />
    </el-select>
    <WeightField
      v-if="addition.prep && addition.unit === 'g'"
      name="after"
      label="came to"
      unit="g"
      weigh
      :hint="preparedG?.toFixed(0)"
      :model-value="addition.measured?.weight_after_g"
      @update:model-value="weighed" />
  </div>
</template>

<style scoped>
.preps {
  display: grid;
  gap: 6px;
  margin-top: var(--s2);
}
</style>
