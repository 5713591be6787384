<script setup lang="ts">
import { ElMessage } from 'element-plus'
import Icon from './Icon.vue'
import { useScale } from './useScale'

/** A figure that is typed, or taken from the scale when it is a weight. */
const value = defineModel<number | undefined>()
const props = defineProps<{ label: string; unit?: string; fault?: string; weigh?: boolean; hint?: string; step?: number; name: string }>()
const { scale } = useScale()

function take() {
  const s = scale.value
  if (s?.link !== 'live' || s.grams === undefined || s.over) ElMessage('The scale shows no weight. Type it in.')
  else if (!s.steady) ElMessage('Wait until the scale is steady, then take it again.')
  else if (s.grams <= 0) ElMessage('There is nothing on the scale.')
  else value.value = s.grams
}
</script>

<template>
  <div class="field" :data-field="name">
    <label :for="`f-${name}`">{{ label }}</label>
    <div class="row">
      <el-input-number
        :id="`f-${name}`"
        :model-value="value ?? null"
        :controls="false"
        :step="props.step"
        :placeholder="hint"
        :class="{ wrong: fault }"
        @change="value = $event ?? undefined" />
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
.el-input-number {
  flex: 1;
  min-width: 64px;
  width: auto;
}
.row :deep(.el-input__wrapper) {
  padding: 0 var(--s2);
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
.wrong :deep(.el-input__wrapper) {
  box-shadow: 0 0 0 2px var(--beet) inset;
}
.fault {
  color: var(--beet);
  font-size: var(--t-mini);
  padding-top: 2px;
}
</style>
