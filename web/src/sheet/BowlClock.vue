<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { atClock } from '@/parts/clock'
import { hours } from './words'

/** How long a bowl with egg or milk has been outside the fridge; two and four hours are marked. */
const props = defineProps<{ clock: Schemas['BowlClock']; now: number; paused?: boolean }>()
const emit = defineEmits<{ fridge: [into: boolean] }>()
const ms = computed(() => props.clock.before_s * 1000 + (props.clock.since ? Math.max(0, props.now - Date.parse(props.clock.since)) : 0))
/** From the marks that the program gives: until when it may be chilled again, until when it must be used. */
const stage = computed(() => {
  const { chill_by: chill, use_by: use } = props.clock
  if (!chill || !use) return 'stands'
  return props.now < Date.parse(chill) ? 'fine' : props.now < Date.parse(use) ? 'soon' : 'over'
})
const says = computed(() => {
  const { says: words, chill_by: chill, use_by: use } = props.clock
  if (props.paused) return 'counts again when the program is back'
  const by =
    stage.value === 'fine' ? `${words.fine} ${atClock(chill!)}` : stage.value === 'soon' ? `${words.soon} ${atClock(use!)}` : words[stage.value]
  return words.away ? `${by} · ${words.away}` : by
})
/** What waits on this tablet is not counted yet, so no figure stands there. */
const shown = computed(() => (props.paused ? '–' : hours(ms.value)))
const door = computed(() => (props.clock.in_fridge ? 'Take it out of the fridge: the clock goes on' : 'Into the fridge: the clock stands'))
const all = computed(() =>
  props.clock.since && props.clock.use_by ? Date.parse(props.clock.use_by) - Date.parse(props.clock.since) + props.clock.before_s * 1000 : 1,
)
const share = computed(() => Math.min(1, ms.value / all.value))
</script>

<template>
  <div
    class="bowl-clock"
    :class="stage"
    :data-clock="stage"
    role="timer"
    :aria-label="`The bowl’s clock: ${paused ? '' : `${shown}, `}${says}. Your local code decides.`">
    <b>{{ shown }}</b>
    <span class="says"><i v-if="stage === 'soon' || stage === 'over'" class="sign high" />{{ says }}</span>
    <svg width="100%" height="16" viewBox="0 0 190 16" preserveAspectRatio="none" aria-hidden="true">
      <rect x="0" y="2" width="190" height="12" rx="6" class="track" />
      <rect v-if="share && !paused" x="0" y="2" :width="Math.max(8, 190 * share)" height="12" rx="6" class="gone" />
      <path d="M95 0v16M188.500 0v16" class="mark" />
    </svg>
    <el-button v-if="clock.since || clock.in_fridge" class="fridge" :title="door" @click="emit('fridge', !clock.in_fridge)"
      ><Icon name="fridge" :size="22" /><span class="door">{{ clock.in_fridge ? 'Take out' : 'Chill it' }}</span></el-button
    >
  </div>
</template>

<style scoped>
.bowl-clock {
  display: grid;
  grid-template: auto auto / auto minmax(150px, 216px) auto;
  align-items: center;
  gap: 0 var(--s3);
}
b {
  grid-row: 1 / 3;
  font-size: 36px;
  font-weight: 780;
  line-height: 1;
}
.says {
  font-size: var(--t-mini);
  line-height: 1.15;
}
svg {
  grid-column: 2;
  grid-row: 2;
}
.fridge {
  grid-column: 3;
  grid-row: 1 / 3;
}
@media (max-width: 900px) {
  .bowl-clock {
    grid-template-columns: auto minmax(90px, 150px) auto;
    gap: 0 var(--s2);
  }
  b {
    font-size: 30px;
  }
  .door {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
.track {
  fill: var(--well-2);
}
.gone {
  fill: var(--rim);
}
.mark {
  stroke: var(--ink);
  stroke-width: 2.5;
  fill: none;
}
.soon .gone {
  fill: var(--honey-fill);
}
.over .gone {
  fill: var(--beet);
}
.over b,
.over .says {
  color: var(--beet);
}
</style>
