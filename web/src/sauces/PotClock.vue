<script setup lang="ts">
import { computed } from 'vue'
import { countdown } from '@/parts/clock'
import Icon from '@/parts/Icon.vue'

/** How long it has boiled, of the time that is expected; what is done with the heat. */
const props = defineProps<{ boils: boolean; over: boolean; boiledMs: number; wholeMs: number; ringsInMs?: number }>()
defineEmits<{ start: []; stop: []; clear: []; ring: [minutes: number] }>()
const round = 2 * Math.PI * 50
const share = computed(() => Math.min(1, props.boiledMs / Math.max(1, props.wholeMs)))
const minutes = [1, 5, 10]
</script>

<template>
  <section class="clock" aria-label="The clock of the pot" :data-boils="boils">
    <svg class="face" viewBox="0 0 124 124" role="img" :aria-label="`${countdown(boiledMs)} since it began to boil`">
      <circle cx="62" cy="62" r="50" fill="none" stroke="var(--well-2)" stroke-width="13" />
      <circle
        cx="62"
        cy="62"
        r="50"
        fill="none"
        stroke="var(--rim)"
        stroke-width="13"
        :stroke-dasharray="`${share * round} ${round}`"
        transform="rotate(-90 62 62)" />
      <text x="62" y="70" text-anchor="middle">{{ countdown(boiledMs) }}</text>
    </svg>
    <p class="muted">{{ over ? 'off the heat' : boils ? 'since the boil' : 'not yet on' }}</p>
    <template v-if="boils">
      <p v-if="ringsInMs !== undefined" class="rings"><Icon name="clock" :size="18" />rings in {{ countdown(ringsInMs) }}</p>
      <div v-else class="acts ring" role="group" aria-label="Ring in so many minutes">
        <el-button v-for="m in minutes" :key="m" :aria-label="`Ring in ${m} min`" @click="$emit('ring', m)"
          ><Icon name="clock" :size="16" />{{ m }}</el-button
        >
      </div>
      <el-button class="big" data-off @click="$emit('stop')"><Icon name="flame" :size="18" />Off the heat</el-button>
    </template>
    <el-button v-else-if="over" class="big" @click="$emit('clear')">Another pot</el-button>
    <el-button v-else class="big" data-boils @click="$emit('start')"><Icon name="flame" :size="18" />It boils</el-button>
  </section>
</template>

<style scoped>
.clock {
  display: grid;
  gap: var(--s2);
  justify-items: center;
  align-content: center;
  min-width: 172px;
}
.face {
  width: 124px;
}
.face text {
  font-size: 23px;
  font-weight: 780;
  fill: var(--ink);
}
.big {
  width: 100%;
  min-height: 54px;
}
.ring .el-button {
  min-width: 52px;
  padding: 0 var(--s2);
}
.ring {
  flex-wrap: nowrap;
}
.ring .el-button + .el-button {
  margin-left: 0;
}
.rings {
  display: flex;
  gap: 6px;
  align-items: center;
  min-height: var(--touch);
  font-weight: 650;
}
</style>
