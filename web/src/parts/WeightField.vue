<script setup lang="ts">
import { computed } from 'vue'
import { say } from '@/parts/say'
import type { Schemas } from '@/api/client'
import AmountField from './AmountField.vue'
import Icon from './Icon.vue'
import { useScale } from './useScale'

/** A figure that is typed, or taken from the scale when it is a weight. */
const value = defineModel<number | undefined>()
const props = defineProps<{ label: string; unit?: string; fault?: string; weigh?: boolean; hint?: string; name: string }>()
/** Weights and volumes are read in their unit; a °Brix or a price is a number. */
const readIn = computed(() => (props.unit === 'g' || props.unit === 'ml' ? (props.unit as Schemas['Unit']) : undefined))
const { scale } = useScale()

function take() {
  const s = scale.value
  if (s?.link !== 'live' || s.grams === undefined || s.over) say('The scale shows no weight. Type it in.')
  else if (!s.steady) say('Wait until the scale is steady, then take it again.')
  else if (s.grams <= 0) say('There is nothing on the scale.')
  else value.value = s.grams
}
</script>

<template>
  <div class="field" :data-field="name">
    <label :for="`f-${name}`">{{ label }}</label>
    <div class="row">
      <AmountField :id="`f-${name}`" v-model="value" :label="label" :unit="readIn" :placeholder="hint" :wrong="!!fault" />
      <span v-if="unit" class="unit">{{ unit }}</span>
      <el-button v-if="weigh" :aria-label="`Take ${label} from the scale`" title="Take it from the scale" @click="take"
        ><Icon name="scale"
      /></el-button>
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.field {
  min-width: 0;
}
label {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
  padding-bottom: 2px;
}
.row {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: var(--touch);
}
.amount-field {
  flex: 1;
  min-width: 64px;
}
.unit {
  color: var(--ink-2);
  white-space: nowrap;
}
.row .el-button {
  width: var(--touch);
  padding: 0;
  flex: none;
}
.fault {
  color: var(--beet);
  font-size: var(--t-mini);
  padding-top: 2px;
}
</style>
