<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import type { Zone } from '@/bench/ZoneSwitch.vue'

/** A walk over the bench: each part is pointed at and says what it is for. */
const shown = defineModel<boolean>({ required: true })
const emit = defineEmits<{ zone: [zone: Zone] }>()
const phone = useMediaQuery('(max-width: 700px)')
const at = ref(0)

type Stop = { zone: Zone; side: 'left' | 'right' | 'top' | 'bottom'; target: string; phoneTarget?: string; title: string; says: string }
const stops: Stop[] = [
  {
    zone: 'list',
    side: 'right',
    target: '[aria-label="Weigh-out list"]',
    title: 'What to weigh out',
    says: 'Base and additions in the order in which they go into each bowl. Read across: the base, less or more its offset, is what you weigh.',
  },
  {
    zone: 'list',
    side: 'right',
    target: '.off .why-chip',
    title: 'The offset',
    says: 'The additions bring water, sugar, salt or acid. So much of this line is held back or added for it. Tap it, and it says why.',
  },
  {
    zone: 'list',
    side: 'left',
    target: '[aria-label="Additions"]',
    phoneTarget: '[aria-label="In hand"]',
    title: 'The additions',
    says: 'Find one, and step or drag how much goes in. Everything else follows at once. Ctrl+Z takes any step back.',
  },
  {
    zone: 'balance',
    side: 'bottom',
    target: '[aria-label="Balance"]',
    title: 'Seven gauges',
    says: 'The ring is the base, the grey bar what would happen without offsets, the green mark what you weigh. Pull a ring to where you want it: sweeter, thicker, fluffier.',
  },
  {
    zone: 'portion',
    side: 'left',
    target: '[aria-label="Portion"]',
    title: 'One portion, to scale',
    says: 'How wide, how high, how many, and how hot and long it cooks. Choose your ladle here.',
  },
  {
    zone: 'list',
    side: 'top',
    target: '[aria-label="Verdict"]',
    title: 'In one line',
    says: 'What it makes, what to watch, and what it contains. Check every pack; a shared griddle carries allergens over.',
  },
]
const stop = computed(() => stops[at.value]!)
watch([shown, at], () => shown.value && emit('zone', stop.value.zone), { flush: 'sync' })
watch(shown, (open) => open && (at.value = 0), { flush: 'sync' })
const target = (s: Stop) => () => document.querySelector<HTMLElement>((phone.value && s.phoneTarget) || s.target)
</script>

<template>
  <el-tour v-model="shown" v-model:current="at" :target-area-clickable="false" :gap="{ offset: 4, radius: 14 }" class="tour">
    <el-tour-step
      v-for="(s, i) in stops"
      :key="s.title"
      :target="target(s)"
      :placement="phone ? (s.zone === 'list' && s.side !== 'top' ? 'top' : 'bottom') : s.side"
      :title="s.title"
      :description="s.says"
      :prev-button-props="{ children: 'Back' }"
      :next-button-props="{ children: i === stops.length - 1 ? 'To work' : 'Next' }" />
    <template #indicators="{ current, total }">{{ current + 1 }} of {{ total }}</template>
  </el-tour>
</template>

<style>
.el-tour__content {
  --el-tour-width: min(360px, calc(100vw - 16px));
  border: 2px solid var(--rim);
  border-radius: var(--r-panel);
  padding: var(--s3) var(--s4);
}
.el-tour__title {
  font-size: var(--t-title);
  font-weight: 700;
}
.el-tour__body {
  font-size: var(--t-body);
  line-height: 1.35;
}
.el-tour__closebtn {
  width: var(--touch);
  height: var(--touch);
}
.el-tour__footer .el-button {
  height: var(--touch);
  padding: 0 var(--s4);
  border-radius: var(--r-ctl);
  font-size: var(--t-body);
}
.el-tour__footer .el-button--primary {
  background: var(--yolk);
  border: 2px solid var(--on-yolk);
  color: var(--on-yolk);
  font-weight: 750;
}
</style>
