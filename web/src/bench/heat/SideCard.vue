<script setup lang="ts">
import { clock } from '@/parts/clock'
import SignDrawing from './SignDrawing.vue'

defineProps<{ title: string; note?: string; seconds: number; range?: number[]; signs: string[]; shown: string[]; colour?: string; said?: number }>()
</script>

<template>
  <section class="side well" :aria-label="title">
    <header>
      <h3>{{ title }}</h3>
      <small v-if="note">{{ note }}</small>
    </header>
    <p class="minutes">
      <b>{{ clock(seconds) }}</b>
    </p>
    <p v-if="range || said" class="range">
      <span v-if="range">{{ clock(range[0]!) }} to {{ clock(range[1]!) }} by practice</span><span v-if="said">the recipe says {{ said }} min</span>
    </p>
    <ul>
      <li v-for="(s, i) in signs" :key="s"><SignDrawing :shown="shown[i] ?? ''" :colour="colour" />{{ s }}</li>
    </ul>
  </section>
</template>

<style scoped>
.side {
  display: flex;
  flex-direction: column;
  padding: 10px var(--s3) var(--s1);
  min-width: 0;
}
header {
  display: flex;
  align-items: baseline;
  gap: var(--s2);
}
h3 {
  font-size: var(--t-lead);
}
small {
  margin-left: auto;
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.minutes {
  text-align: center;
}
.minutes b {
  font-size: clamp(52px, 8vw, 104px);
  font-weight: 800;
  line-height: 1;
  letter-spacing: -0.02em;
}
.range {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 0 var(--s3);
  color: var(--ink-2);
  font-size: var(--t-mini);
}
ul {
  list-style: none;
  margin: auto 0 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  gap: var(--s3);
  min-height: 54px;
  padding: 2px 0;
  border-top: 1.5px solid var(--hair);
  font-size: var(--t-lead);
  font-weight: 650;
  line-height: 1.15;
}
</style>
