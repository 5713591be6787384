<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import type { Zone } from '@/bench/ZoneSwitch.vue'

/** A walk over the bench: each part is pointed at and says what it is for. */
const shown = defineModel<boolean>({ required: true })
const emit = defineEmits<{ zone: [zone: Zone] }>()
const phone = useMediaQuery('(max-width: 700px)')
const at = ref(0)

type Stop = { zone: Zone; target: string; phoneTarget?: string; title: string; says: string }
const stops: Stop[] = [
  {
    zone: 'list',
    target: '[aria-label="Weigh-out list"]',
    title: 'What to weigh out',
    says: 'Base and additions in the order in which they go into each bowl. Read across: the base, less or more its offset, is what you weigh.',
  },
  {
    zone: 'list',
    target: '.off .why-chip',
    title: 'The offset',
    says: 'The additions bring water, sugar, salt or acid. So much of this line is held back or added for it. Tap it, and it says why.',
  },
  {
    zone: 'list',
    target: '[aria-label="Additions"]',
    phoneTarget: '[aria-label="In hand"]',
    title: 'The additions',
    says: 'Find one, and step or drag how much goes in. Everything else follows at once. Ctrl+Z takes any step back.',
  },
  {
    zone: 'balance',
    target: '[aria-label="Balance"]',
    title: 'Seven gauges',
    says: 'The ring is the base, the grey bar what would happen without offsets, the green mark what you weigh. Pull a ring to where you want it: sweeter, thicker, fluffier.',
  },
  {
    zone: 'portion',
    target: '[aria-label="Portion"]',
    title: 'One portion, to scale',
    says: 'How wide, how high, how many, and how hot and long it cooks. Choose your ladle here.',
  },
  {
    zone: 'list',
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
      :title="s.title"
      :description="s.says"
      :prev-button-props="{ children: 'Back' }"
      :next-button-props="{ children: i === stops.length - 1 ? 'To work' : 'Next' }" />
    <template #indicators="{ current, total }">{{ current + 1 }} of {{ total }}</template>
  </el-tour>
</template>
