<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { said } from '@/api/client'
import { useBench } from '@/bench/bench'
import { forms } from '@/bench/choices'
import { useMaking } from '@/bench/make/making'
import { addressOf, sheetOf } from '@/parts/address'
import Icon from '@/parts/Icon.vue'
import AllergenLine from '@/parts/AllergenLine.vue'
import { onStep } from '@/parts/figures'
import { say } from '@/parts/say'
import SheetCard from './SheetCard.vue'
import { useSheet } from './sheet'

/** All is done: it is made, and what it taught is offered to the variation. */
const sheet = useSheet()
const bench = useBench()
const router = useRouter()
const batch = computed(() => sheet.batch!)
const state = computed(() => batch.value.state)
const many = computed(() => forms.find((f) => f.value === batch.value.plan.form)?.many ?? 'portions')
const leftOut = computed(() => state.value.tasks.filter((t) => t.kind === 'weigh' && t.at === 'left_out').map((t) => t.label))
/** Bowls that a common batter was mixed for. */
const making = useMaking()
onMounted(() => !state.value.count && void making.load())
const bowls = computed(() => making.underWay.filter((b) => b.id !== batch.value.id))
const made = () => sheet.tell({ kind: 'made' }, 'made')
const taking = ref(false)
async function takeOver() {
  const from = batch.value.from?.id
  const offer = state.value.offer
  if (!from || !offer) return
  taking.value = true
  try {
    await bench.start(from)
    bench.change((d) => {
      if (offer.thickness !== undefined) d.offset = { ...d.offset!, targets: { ...d.offset?.targets, thickness: offer.thickness } }
      for (const dose of offer.doses ?? []) {
        const addition = d.additions?.find((a) => a.id === dose.line)
        if (addition && dose.amount) addition.amount = dose.amount
      }
    })
    await router.push(addressOf(from))
  } catch (e) {
    say(said(e))
  } finally {
    taking.value = false
  }
}
defineExpose({ enter: () => !state.value.made && made() })
</script>

<template>
  <SheetCard class="made-card">
    <h2>{{ state.made ? 'Made' : 'All steps are done' }}</h2>
    <template v-if="batch.plan.common">
      <p class="text">The common batter is ready. Now bowl by bowl:</p>
      <p class="bowls">
        <router-link v-for="b in bowls" :key="b.id" class="el-button big" :to="sheetOf(b.id)"
          ><span
            ><b>{{ b.name }}</b> {{ b.doing || 'all steps done' }}</span
          ></router-link
        >
      </p>
    </template>
    <p v-else class="count">
      <b>{{ state.count }}</b> {{ many }}, {{ batch.plan.portion_ml.toFixed(0) }} ml{{ state.count === 1 ? '' : ' each' }}
    </p>
    <p v-if="state.pours_mm && !batch.plan.common" class="text">
      It pours about {{ state.pours_mm.toFixed(0) }} mm wide<template v-if="state.splash_g"
        >; {{ state.splash_g.toFixed(0) }} g were stirred in</template
      ><template v-if="state.kept_g">; {{ state.kept_g.toFixed(0) }} g stay in the jug</template>.
    </p>
    <p v-if="leftOut.length" class="text"><i class="sign high" /> Left out: {{ leftOut.join(', ') }}.</p>
    <AllergenLine :text="batch.plan.allergen_text" class="allergens" />
    <section v-if="state.made && state.offer && batch.from" class="offer well">
      <div class="taught">
        <p v-if="state.offer.text">{{ state.offer.text }} Next time weigh it out so from the start?</p>
        <p v-for="d in state.offer.doses" :key="d.line">
          {{ d.label }}: {{ onStep(d.grams, 2) }} g tasted right, {{ onStep(d.planned_g, 2) }} g was planned.
        </p>
      </div>
      <el-button class="go" :loading="taking" @click="takeOver">Take it into the variation</el-button>
    </section>
    <p v-if="state.made" class="muted">What the pantry keeps count of was taken off its stock.</p>
    <template #acts>
      <el-button v-if="!state.made" class="big go next" @click="made">It is made <kbd>Enter</kbd></el-button>
      <template v-else>
        <router-link v-if="!batch.plan.common" class="el-button big go next" :to="{ path: '/griddle', query: { batch: batch.id } }"
          ><Icon name="griddle" />To the griddle</router-link
        >
        <router-link class="el-button big next" :to="addressOf(batch.from?.id)">Back to the bench</router-link>
      </template>
    </template>
  </SheetCard>
</template>

<style scoped>
h2 {
  font-size: 42px;
  font-weight: 800;
}
.count {
  font-size: 32px;
}
.count b {
  font-size: clamp(96px, 12vw, 150px);
  line-height: 0.9;
  font-weight: 800;
}
.text {
  font-size: var(--t-title);
}
.allergens {
  font-size: var(--t-lead);
}
.offer {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: center;
  padding: var(--s4);
  font-size: var(--t-title);
  background: var(--yolk-wash);
}
.taught {
  flex: 1 1 300px;
  display: grid;
  gap: var(--s1);
}
.offer p {
  flex: 1 1 300px;
}
.bowls {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.bowls a,
a.next {
  text-decoration: none;
}
</style>
