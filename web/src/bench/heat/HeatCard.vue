<script setup lang="ts">
import Icon from '@/parts/Icon.vue'
import { useHeat } from './heat'
import { clock } from '@/parts/clock'

const heat = useHeat()
</script>

<template>
  <section class="heat well" :class="{ coming: heat.coming }" aria-label="Heat" :aria-busy="heat.coming">
    <p v-if="heat.trouble" class="say" role="alert"><i class="sign high" />{{ heat.trouble }}</p>
    <p v-else-if="!heat.cook" class="say">Working out the heat</p>
    <button v-else type="button" class="open" @click="heat.open = true">
      <Icon :name="heat.cook.second_side_s === undefined ? 'iron' : 'griddle'" :size="22" />
      <span v-if="heat.cook.first_side_s" class="times">
        <b>{{ clock(heat.cook.first_side_s) }}</b><template v-if="heat.cook.second_side_s !== undefined"
          ><i>then</i><b>{{ clock(heat.cook.second_side_s) }}</b></template
        ><i v-else>closed</i>
      </span>
      <span v-else class="times"><b class="bad">stays raw inside</b></span>
      <span class="vh">, open the heat</span>
      <small v-if="heat.coming" class="sign-line">coming</small>
      <small v-else>{{ heat.cook.griddle_text }} · {{ heat.cook.signs_first[0] }}</small>
    </button>
  </section>
</template>

<style scoped>
.heat {
  margin: 6px var(--s3) 0;
}
.say {
  display: flex;
  gap: var(--s2);
  align-items: center;
  min-height: var(--touch);
  padding: var(--s1) var(--s3);
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.open {
  display: grid;
  grid-template-columns: auto 1fr;
  align-items: center;
  gap: 0 var(--s2);
  width: 100%;
  min-height: var(--touch);
  padding: 5px var(--s3);
  border: 0;
  border-radius: var(--r-well);
  background: none;
  text-align: left;
  cursor: pointer;
}
.open svg {
  grid-row: 1 / 3;
}
.times {
  display: flex;
  align-items: baseline;
  gap: 6px;
  white-space: nowrap;
}
.times b {
  font-size: var(--t-title);
  font-weight: 780;
  line-height: 1.1;
}
.times i {
  font-style: normal;
  font-size: var(--t-mini);
  color: var(--ink-2);
}
.times .bad {
  color: var(--beet);
  font-size: var(--t-lead);
}
small {
  font-size: var(--t-mini);
  color: var(--ink-2);
  line-height: 1.15;
}
.coming .times {
  opacity: 0.45;
}
</style>
