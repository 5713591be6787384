<script setup lang="ts">
import { computed } from 'vue'
import { elsewhere, isLocal } from '@/away/drafts'
import { letters } from '@/away/outbox'
import { newer, takeNewer } from '@/away/shell'
import Icon from './Icon.vue'
import { useBench } from '@/bench/bench'
import { addressOf } from './address'
import { shift } from './settings'

const emit = defineEmits<{ find: []; waiting: [] }>()
const bench = useBench()
/** What was done here and has not reached the kitchen. */
const waiting = computed(() => letters.value.length + elsewhere.value.length + (bench.saveState === 'offline' && !isLocal(bench.id) ? 1 : 0))
const stuck = computed(() => letters.value.some((l) => l.trouble))
</script>

<template>
  <nav class="rail" aria-label="Areas">
    <svg class="mark" viewBox="0 0 52 52" role="img" aria-label="Upbeat Ladle">
      <circle cx="26" cy="26" r="23" fill="var(--enamel)" stroke="var(--rim)" stroke-width="3" />
      <path d="M14 27h19a9.500 9.500 0 0 1-19 0z" fill="var(--yolk)" stroke="var(--ink)" stroke-width="2.500" stroke-linejoin="round" />
      <path d="M33 27 40 12" stroke="var(--ink)" stroke-width="3" stroke-linecap="round" />
    </svg>
    <button type="button" class="area" title="Go to (Ctrl+K)" @click="emit('find')"><Icon name="search" :size="24" />Find</button>
    <router-link class="area" :class="{ 'router-link-exact-active': $route.name === 'sheet' }" :to="addressOf(bench.id)"
      ><Icon name="bench" :size="24" />Bench</router-link
    >
    <router-link class="area" to="/bases"><Icon name="base" :size="24" />Bases</router-link>
    <router-link class="area" to="/pantry"><Icon name="shelf" :size="24" />Pantry</router-link>
    <router-link class="area" to="/prep"><Icon name="knife" :size="24" />Prep</router-link>
    <router-link class="area" :class="{ 'router-link-exact-active': $route.name === 'freezer' }" to="/griddle"
      ><Icon name="griddle" :size="24" />Griddle</router-link
    >
    <router-link class="area" to="/sauces"><Icon name="pot" :size="24" />Sauces</router-link>
    <button v-if="newer" type="button" class="area told" title="A newer program is here. Your work stays." @click="takeNewer">
      <Icon name="redo" :size="24" />Update
    </button>
    <button v-if="waiting" type="button" class="area told" :class="{ stuck }" aria-live="polite" @click="emit('waiting')">
      <Icon name="offline" :size="24" />{{ waiting }} {{ waiting === 1 ? 'waits' : 'wait' }}
    </button>
    <router-link class="area last" to="/kitchen"><Icon name="kitchen" :size="24" />Kitchen</router-link>
    <button type="button" class="area shift" :aria-pressed="shift === 'early'" @click="shift = shift === 'early' ? 'day' : 'early'">
      <Icon :name="shift === 'early' ? 'sun' : 'moon'" :size="24" />{{ shift === 'early' ? 'Daylight' : 'Early shift' }}
    </button>
  </nav>
</template>

<style scoped>
.rail {
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: var(--s2) 6px;
}
.mark {
  height: 52px;
  width: 52px;
  margin: 0 auto 6px;
}
.area {
  display: grid;
  place-items: center;
  align-content: center;
  gap: 3px;
  height: 66px;
  border: 0;
  border-radius: var(--r-ctl);
  background: none;
  color: var(--ink-2);
  text-decoration: none;
  font-size: var(--t-mini);
  cursor: pointer;
  line-height: 1.1;
  text-align: center;
}
.area.router-link-exact-active {
  background: var(--yolk);
  color: var(--on-yolk);
  font-weight: 700;
}
.last {
  margin-top: auto;
}
.told {
  background: var(--yolk-wash);
  color: var(--ink);
  font-weight: 700;
}
.stuck {
  background: var(--beet-wash);
  color: var(--beet);
}
@media (max-width: 900px) {
  .rail {
    order: 2;
    flex-direction: row;
    justify-content: space-around;
    padding: 2px var(--s3);
  }
  .mark {
    display: none;
  }
  .area {
    flex: 1;
    max-width: 140px;
    height: 60px;
  }
  .last {
    margin: 0;
  }
}
/* On a phone eight areas have room; early shift is behind Find as well. */
@media (max-width: 480px) {
  .shift {
    display: none;
  }
}
</style>
