<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'

/** The figure that is watched, what is said of it, and the button that reads the surest judge. */
const props = defineProps<{ pot: Schemas['SauceAnswer']; read: boolean; busy: boolean }>()
defineEmits<{ read: [by: Schemas['SauceStop']['by']]; forget: [] }>()
const now = computed(() => props.pot.now)
const lead = computed(() => now.value ?? props.pot.watch)
const probes = computed(() => props.pot.stops[0]?.by === 'temperature')
</script>

<template>
  <div class="lead" :class="{ done: now?.done }" data-lead aria-live="polite">
    <p class="figure">
      <b>{{ lead.figure.toFixed(0) }}</b><small>{{ lead.unit }}</small>
    </p>
    <p class="says">
      <b>{{ lead.head }}</b><span>{{ lead.says }}</span>
    </p>
    <div v-if="pot.pot.boils" class="do">
      <el-button v-if="probes" class="go" data-probe :loading="busy" @click="$emit('read', 'temperature')"
        ><Icon name="probe" />Read the probe</el-button
      >
      <el-button v-else class="go" data-weigh :loading="busy" @click="$emit('read', 'weight')"><Icon name="scale" />Weigh the pot</el-button>
      <el-button v-if="read" class="ghost" @click="$emit('forget')">Forget the reading</el-button>
    </div>
  </div>
</template>

<style scoped>
.lead {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s4);
  padding: var(--s2) var(--s4);
  background: var(--yolk);
  color: var(--on-yolk);
  border: 2px solid var(--ink);
  border-radius: var(--r-panel);
}
.done {
  background: var(--leaf-wash);
  border-color: var(--leaf);
  color: var(--ink);
}
.figure {
  display: flex;
  align-items: baseline;
  line-height: 1;
}
.figure b {
  font-size: 92px;
  font-weight: 780;
  letter-spacing: -0.02em;
}
.figure small {
  font-size: 34px;
  font-weight: 700;
}
.says {
  flex: 1 1 160px;
  display: grid;
  gap: 4px;
}
.says b {
  font-size: var(--t-title);
  line-height: 1.15;
}
.do {
  display: grid;
  gap: var(--s1);
}
.do .go {
  min-height: 58px;
}
.lead:not(.done) .ghost {
  color: inherit;
}
@media (max-width: 600px) {
  .figure b {
    font-size: 76px;
  }
}
</style>
