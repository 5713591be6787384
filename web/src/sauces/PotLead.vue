<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'

/** The figure that is watched, what is said of it, and the button that reads the surest judge. */
const props = defineProps<{ pot: Schemas['SauceAnswer']; read: boolean; busy: boolean }>()
defineEmits<{ read: [by: Schemas['SauceStop']['by']]; forget: [] }>()
const now = computed(() => props.pot.now)
const whole = (v: number | undefined) => (v === undefined ? '' : v.toFixed(0))
const lead = computed(() => {
  const p = props.pot
  const n = now.value
  if (n && p.kind === 'caramel' && n.by === 'temperature') return { figure: whole(n.boils_c), unit: '°C', head: n.head, says: n.says }
  if (n) return { figure: whole(Math.abs(n.to_go_g)), unit: 'g', head: n.head, says: n.says }
  if (p.kind === 'caramel') {
    const amber = p.stops.find((s) => s.by === 'temperature')
    return { figure: whole(amber?.at), unit: '°C', head: 'to amber, then off the heat', says: 'then pour in what waits, slowly and warm' }
  }
  if (p.pot.boils)
    return {
      figure: whole(p.pot.off_g),
      unit: 'g',
      head: `to boil off, about ${Math.ceil(p.pot.minutes)} min`,
      says: `${whole(p.pot.rate_g_per_min)} g a minute, stirring`,
    }
  if (p.kind === 'cream')
    return { figure: whole(p.end.volume_ml), unit: 'ml', head: `whipped, out of ${whole(p.start.volume_ml)} ml`, says: p.texture }
  if (p.kind === 'macerated') return { figure: whole(p.juice_g), unit: 'g', head: 'of juice are drawn', says: 'the sugar in it' }
  return { figure: whole(p.end.mass_g), unit: 'g', head: 'stirred together', says: p.texture }
})
const probes = computed(() => props.pot.stops[0]?.by === 'temperature')
</script>

<template>
  <div class="lead" :class="{ done: now?.done }" data-lead aria-live="polite">
    <p class="figure">
      <b>{{ lead.figure }}</b><small>{{ lead.unit }}</small>
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
