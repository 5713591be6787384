<script setup lang="ts">
import type { Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { judges } from './words'

/** By what it is seen that it is done, the surest first: what it shows then, what it shows now. */
defineProps<{ stops: Schemas['SauceStop'][]; colour: string; canRead: Partial<Record<Schemas['SauceStop']['by'], boolean>> }>()
defineEmits<{ read: [by: Schemas['SauceStop']['by']] }>()
</script>

<template>
  <ul class="stops">
    <li v-for="(s, n) in stops" :key="s.by" class="well" :class="{ surest: n === 0 && stops.length > 1 }" :data-stop="s.by">
      <h3><Icon :name="judges[s.by].icon" :size="18" />{{ judges[s.by].label }}<template v-if="n === 0 && stops.length > 1">: surest</template></h3>
      <p v-if="s.at !== undefined" class="at">
        <b>{{ s.at.toFixed(judges[s.by].decimals) }}</b> {{ s.unit }}
      </p>
      <div v-if="s.at !== undefined" class="way" aria-hidden="true">
        <i :style="{ width: `${100 * (s.share ?? 0)}%`, background: colour }" /><em />
      </div>
      <p class="says">
        <template v-if="s.now !== undefined"
          >now <b>{{ s.now.toFixed(judges[s.by].decimals) }}</b>;
        </template>
        {{ s.text }}
      </p>
      <el-button v-if="canRead[s.by]" :data-read="s.by" @click="$emit('read', s.by)">Read it</el-button>
    </li>
  </ul>
</template>

<style scoped>
.stops {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(142px, 1fr));
  gap: var(--s2);
}
li {
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: var(--s3);
  min-width: 0;
}
.surest {
  background: var(--leaf-wash);
  box-shadow: inset 0 0 0 2px var(--leaf);
}
h3 {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: var(--t-body);
  color: var(--ink-2);
}
.surest h3 {
  color: var(--leaf);
}
.at b {
  font-size: 34px;
  line-height: 1;
  font-weight: 780;
}
.way {
  position: relative;
  height: 8px;
  border-radius: var(--r-pill);
  background: var(--well-2);
}
.way i {
  display: block;
  height: 100%;
  border-radius: var(--r-pill);
}
.way em {
  position: absolute;
  right: 0;
  top: -6px;
  width: 4px;
  height: 20px;
  background: var(--leaf);
}
.says {
  font-size: 14px;
  color: var(--ink-2);
  overflow-wrap: anywhere;
}
.says b {
  color: var(--ink);
}
li .el-button {
  margin-top: auto;
}
</style>
