<script setup lang="ts">
import { computed } from 'vue'
import { countdown } from '@/parts/clock'
import Icon from '@/parts/Icon.vue'
import { keyOf, useBoard, type Bowl, type Place } from './board'
import { msOf, sideOf, signOf, stands } from './words'

/** One place on a plate: what lies on it, how long it still takes, and a touch does what comes next. */
const props = defineProps<{ place: Place; bowl?: Bowl; iron?: boolean }>()
const board = useBoard()
const cooks = computed(() => !!props.place.portion)
const stand = computed(() => stands(props.place, board.nowMs))
const pressed = computed(() => !!props.place.next?.tell && board.pressed.has(keyOf(props.place.next.tell)))
const left = computed(() => msOf(props.place.due_at) - board.nowMs)
/** How much of the side is still to come, round the rim. */
const share = computed(() => Math.min(1, Math.max(0, left.value / 1000 / (props.place.for_s || 1))))
const act = computed(() => props.place.next?.act)
const due = computed(() => cooks.value && stand.value.state !== 'ahead')
const big = computed(() => {
  if (pressed.value) return '…'
  if (cooks.value) return due.value ? (act.value ?? '') : countdown(left.value)
  return props.place.phase === 'free' ? 'pour' : ''
})
const small = computed(() =>
  !cooks.value ? '' : due.value ? stand.value.says : props.place.test ? `${sideOf(props.place)} · test` : sideOf(props.place),
)
const round = 2 * Math.PI * 46
function touch() {
  if (props.place.next && !pressed.value) void board.does(props.place.next)
}
</script>

<template>
  <button
    type="button"
    class="place"
    :class="[place.phase, due && stand.state, act, { pressed, iron }]"
    :disabled="!place.next || board.state?.closed"
    :data-place="place.number"
    :data-phase="place.phase"
    @click="touch">
    <svg viewBox="0 0 100 100" aria-hidden="true">
      <circle class="rim" cx="50" cy="50" r="46" />
      <g v-if="cooks">
        <circle class="cake" cx="50" cy="50" r="38" :style="place.phase === 'first' && bowl?.colour ? { fill: bowl.colour } : {}" />
        <path v-if="iron" class="grid" d="M26 22v56M42 13v74M58 13v74M74 22v56M22 26h56M13 42h74M13 58h74M22 74h56" />
        <circle v-if="!due" class="left" cx="50" cy="50" r="46" :stroke-dasharray="`${share * round} ${round}`" transform="rotate(-90 50 50)" />
      </g>
    </svg>
    <span class="vh">{{ place.next?.title ?? `Place ${place.number}` }}, {{ sideOf(place) }}:</span>
    <span class="big">{{ big }}</span>
    <span v-if="small" class="small" :class="{ calm: !due || stand.state !== 'late' }"
      ><i v-if="due && stand.state === 'late'" class="sign high" />{{ small.replace(/ late$/, '')
      }}<span v-if="stand.state === 'late'" class="word">&nbsp;late</span></span
    >
    <span class="number" aria-hidden="true">{{ place.number }}</span>
    <span v-if="due && act" class="badge"><Icon :name="signOf(act)" :size="18" /></span>
  </button>
</template>

<style scoped>
.place {
  container-type: inline-size;
  position: relative;
  display: grid;
  place-items: center;
  width: 100%;
  aspect-ratio: 1;
  min-width: var(--touch);
  padding: 0;
  border: 0;
  border-radius: 50%;
  background: none;
  cursor: pointer;
  touch-action: manipulation;
}
.place:disabled {
  cursor: default;
}
svg {
  position: absolute;
  inset: 0;
  overflow: visible;
}
.rim {
  fill: var(--steel-2);
  fill-opacity: 0.35;
  stroke: var(--enamel);
  stroke-width: 7;
}
.free .rim,
.waits .rim,
.idle .rim {
  vector-effect: non-scaling-stroke;
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 2;
  stroke-dasharray: 6 5;
}
.idle .rim {
  stroke: var(--edge);
}
.left {
  fill: none;
  stroke: var(--rim);
  stroke-width: 7;
}
.second .left {
  stroke-width: 8;
  stroke-dashoffset: 0;
  stroke: var(--water);
}
.cake {
  fill: var(--crumb);
}
.second .cake,
.shut .cake {
  fill: var(--crust);
}
.grid {
  stroke: var(--crust-deep);
  stroke-width: 2;
  fill: none;
}
.due .rim,
.late .rim {
  stroke: var(--yolk);
  stroke-width: 9;
}
.due.lift .rim {
  stroke: var(--leaf);
}
.late .rim {
  stroke: var(--beet);
}
.big {
  position: relative;
  padding: 0 6cqw;
  border-radius: 12cqw;
  background: var(--enamel);
  color: var(--ink);
  font-size: clamp(17px, 26cqw, 44px);
  font-weight: 780;
  line-height: 1.25;
}
.free .big,
.waits .big {
  background: none;
}
.due .big {
  background: var(--yolk);
  color: var(--on-yolk);
}
.late .big {
  background: var(--beet);
  color: var(--enamel);
}
.small {
  position: absolute;
  bottom: 2cqw;
  display: flex;
  align-items: center;
  gap: 4px;
  max-width: 130%;
  padding: 0 6px;
  border-radius: var(--r-pill);
  background: var(--enamel);
  color: var(--ink);
  font-size: var(--t-mini);
  line-height: 1.3;
  white-space: nowrap;
}
.free .number,
.waits .number {
  background: none;
}
.number {
  position: absolute;
  left: 0;
  top: 0;
  min-width: 28px;
  padding: 1px 6px;
  border: 2px solid var(--edge);
  border-radius: 10px;
  background: var(--enamel);
  color: var(--ink);
  font-weight: 750;
  font-size: var(--t-body);
}
.badge {
  position: absolute;
  right: 2px;
  bottom: 8cqw;
  display: grid;
  place-items: center;
  width: 30px;
  height: 30px;
  border-radius: 50%;
  background: var(--ink);
  color: var(--enamel);
}
.pressed {
  opacity: 0.6;
}
@container (max-width: 96px) {
  .number {
    left: -7px;
    top: -7px;
    min-width: 22px;
    padding: 0 4px;
    font-size: var(--t-mini);
  }
  .small {
    bottom: -14px;
  }
  .word,
  .small.calm {
    display: none;
  }
  .badge {
    right: -9px;
    bottom: 4px;
    width: 26px;
    height: 26px;
  }
}
</style>
