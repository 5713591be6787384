<script setup lang="ts">
import { computed, watch } from 'vue'
import Icon from '@/parts/Icon.vue'
import { unitsShown } from '@/parts/settings'
import SheetCard from './SheetCard.vue'
import { useSheet, type TaskNow } from './sheet'
import { atClock, countdown } from '@/parts/clock'

/** One step of mixing, or the rest with its countdown. What is not in yet shows before the bowl goes on. */
const props = defineProps<{ task: TaskNow }>()
const emit = defineEmits<{ sound: ['rested'] }>()
const sheet = useSheet()
const state = computed(() => sheet.batch!.state)
const text = computed(() => (unitsShown.value === 'cups' && props.task.in_cups) || props.task.text)
const missing = computed(() =>
  (props.task.missing ?? []).map((id) => state.value.tasks.find((t) => t.id === id)!).filter((t) => t && !sheet.isWaiting(t.id)),
)
const rests = computed(() => props.task.kind === 'rest')
const left = computed(() => (state.value.rest_until ? Date.parse(state.value.rest_until) - sheet.nowMs : undefined))
const over = computed(() => left.value !== undefined && left.value <= 0)
watch(over, (is, was) => is && was === false && emit('sound', 'rested'))
const share = computed(() =>
  left.value === undefined || !props.task.minutes ? 0 : Math.min(1, Math.max(0, 1 - left.value / (props.task.minutes * 60_000))),
)
const heating = computed(() => state.value.tasks.find((t) => t.code === 'heat' && t.at === 'to_come'))

/** From here on a board leads through every plate at once. */
const plateCodes = ['heat', 'grease', 'under', 'pour', 'place', 'first', 'flip', 'done', 'serve']
const atPlate = computed(() => !rests.value && !sheet.batch!.plan.common && plateCodes.includes(props.task.code ?? ''))

const done = () => sheet.tell({ kind: 'done', task: props.task.id }, 'a step done')
const skip = () => sheet.tell({ kind: 'skipped', task: props.task.id }, 'the rest skipped')
const leaveOut = (id: string) => sheet.tell({ kind: 'skipped', task: id }, 'left out')
function enter() {
  if (missing.value.length) sheet.picked = missing.value[0]!.id
  else if (rests.value && !over.value) return
  else void done()
}
defineExpose({ enter })
</script>

<template>
  <SheetCard class="step-card" :class="{ rests }">
    <div class="words">
      <h2 v-if="rests">Rest</h2>
      <p v-if="rests && left !== undefined" class="left" :class="{ over }" role="timer" data-rest>{{ countdown(left) }}</p>
      <p v-if="rests && left !== undefined" class="until">
        <template v-if="over">It has rested. Go on when you are ready.</template
        ><template v-else>until {{ atClock(state.rest_until!) }}; it goes on by the clock on the wall, whatever becomes of this screen</template>
      </p>
      <el-progress v-if="rests && left !== undefined" :percentage="share * 100" :show-text="false" :stroke-width="14" aria-label="Of the rest" />
      <p class="text" :class="{ small: rests }">{{ text }}</p>
      <p v-if="task.helper === 'child'" class="chip rim helper">a child can help: no tasting of raw batter</p>
      <p v-if="heating && rests" class="well heat">
        <Icon name="griddle" :size="28" /><span>{{ heating.text }}</span>
      </p>
      <p v-if="rests && !over && task.skip" class="muted skip-says">{{ task.skip }}</p>
    </div>
    <section v-if="missing.length" class="missing well" role="alert">
      <h3><i class="sign high" /> Not in yet</h3>
      <ul class="rows">
        <li v-for="m in missing" :key="m.id">
          <span class="what"
            ><b>{{ m.label }}</b></span
          >
          <el-button class="go" @click="sheet.picked = m.id">{{ unitsShown === 'cups' ? 'Measure it' : 'Weigh it' }}</el-button>
          <el-button @click="leaveOut(m.id)">Leave it out</el-button>
        </li>
      </ul>
    </section>
    <template #acts>
      <router-link v-if="atPlate" class="el-button big" data-to-board :to="{ path: '/griddle', query: { batch: sheet.batch!.id } }"
        ><span><Icon name="griddle" />On the griddle board</span></router-link
      >
      <el-button v-if="rests && !over" class="big next" @click="skip">Skip the rest</el-button>
      <el-button v-else class="big go next" :disabled="!!missing.length" @click="done">{{ rests ? 'Go on' : 'Done' }} <kbd>Enter</kbd></el-button>
    </template>
  </SheetCard>
</template>

<style scoped>
.helper {
  justify-self: start;
  align-self: start;
}
a.big {
  text-decoration: none;
}
.words {
  display: grid;
  gap: var(--s4);
}
h2 {
  font-size: 42px;
  font-weight: 800;
}
.text {
  font-size: clamp(26px, 3vw, 38px);
  font-weight: 650;
  line-height: 1.25;
  overflow-wrap: anywhere;
}
.text.small {
  font-size: var(--t-title);
  font-weight: 500;
}
.left {
  font-size: clamp(110px, 15vw, 190px);
  font-weight: 800;
  line-height: 0.86;
  letter-spacing: -0.03em;
}
.left.over {
  color: var(--leaf);
}
.until,
.skip-says {
  font-size: var(--t-lead);
}
.heat {
  display: flex;
  gap: var(--s3);
  align-items: center;
  padding: var(--s3) var(--s4);
  font-size: var(--t-lead);
}
.missing {
  background: var(--beet-wash);
  padding: var(--s3) var(--s4);
}
.missing b {
  font-size: var(--t-title);
}
</style>
