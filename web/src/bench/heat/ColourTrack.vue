<script setup lang="ts">
import { computed } from 'vue'
import { type Cook } from './heat'
import { clock } from '@/parts/clock'

const props = defineProps<{ cook: Cook; wished: string; batter?: string }>()
const emit = defineEmits<{ wish: [colour: string] }>()
const at = (shade: number | undefined) => ({ left: `${100 * Math.min(1, Math.max(0, shade ?? 0))}%` })
const minutes = computed(() => new Map(props.cook.shades?.map((s) => [s.colour, s])))
const times = (c: string) => {
  const s = minutes.value.get(c)
  if (!s) return ''
  return s.reached ? `${clock(s.first_side_s)} + ${clock(s.second_side_s)}` : 'not at this heat'
}
</script>

<template>
  <section class="colour well" aria-label="Colour">
    <p class="what"><b>Colour</b><small v-if="cook.shade_second !== undefined">bar: first side, ring: second</small></p>
    <div class="band">
      <div class="shades" :style="{ '--from': batter ?? 'var(--raw)' }">
        <i class="mark" :style="at(cook.shade_first)" /><i v-if="cook.shade_second !== undefined" class="ring" :style="at(cook.shade_second)" />
      </div>
      <el-radio-group :model-value="wished" class="names" aria-label="The colour you want" @update:model-value="emit('wish', $event as string)">
        <el-radio-button v-for="c in cook.choices.colours" :key="c" :value="c"
          >{{ c }}<small>{{ times(c) }}</small></el-radio-button
        >
      </el-radio-group>
    </div>
  </section>
</template>

<style scoped>
.colour {
  display: grid;
  grid-template-columns: 104px 1fr;
  gap: var(--s3);
  align-items: center;
  padding: var(--s2) var(--s3);
}
.what {
  display: grid;
}
.what b {
  font-size: var(--t-lead);
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
  font-weight: 500;
  line-height: 1.2;
}
.shades {
  position: relative;
  height: 26px;
  border-radius: 9px;
  background: linear-gradient(to right, var(--from), var(--crust) 52%, var(--crust-deep) 75%, var(--nut) 90%, #1f120a);
}
.mark,
.ring {
  position: absolute;
  top: 50%;
  transform: translate(-50%, -50%);
  border: 3px solid var(--enamel);
}
.mark {
  width: 14px;
  height: 38px;
  border-radius: 7px;
  background: var(--ink);
}
.ring {
  width: 18px;
  height: 18px;
  border-radius: 50%;
}
.names {
  display: grid;
  grid-template-columns: 29fr 46fr 25fr;
  gap: 4px;
  margin-top: 8px;
}
.names :deep(.el-radio-button__inner) {
  width: 100%;
  min-height: var(--touch);
  padding: 3px 4px;
  display: grid;
  place-items: center;
  white-space: normal;
  line-height: 1.1;
  border-radius: var(--r-ctl);
}
.names .el-radio-button {
  --el-radio-button-checked-bg-color: var(--enamel);
  --el-radio-button-checked-text-color: var(--ink);
  --el-radio-button-checked-border-color: var(--rim);
}
.names .is-active :deep(.el-radio-button__inner) {
  border: 2px solid var(--rim);
  box-shadow: none;
  font-weight: 750;
}
@media (max-width: 560px) {
  .colour {
    grid-template-columns: 1fr;
  }
  .names {
    grid-template-columns: 1fr 1fr 1fr;
  }
}
</style>
