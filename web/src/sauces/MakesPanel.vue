<script setup lang="ts">
import type { Schemas } from '@/api/client'
import AllergenLine from '@/parts/AllergenLine.vue'
import { onStep } from '@/parts/figures'
import Icon from '@/parts/Icon.vue'
import StepButton from '@/parts/StepButton.vue'

/** What a pot makes: servings, what is in one, how it stands and keeps, and the tub that is kept of it. */
defineProps<{ pot: Schemas['SauceAnswer']; servings: number; kept: boolean; busy: boolean }>()
defineEmits<{ count: [by: number]; tub: [] }>()
</script>

<template>
  <section class="panel makes" aria-label="Makes">
    <header><h2>Makes</h2></header>
    <div class="count">
      <StepButton icon="minus" :label="`${servings - 1} servings`" :disabled="servings < 2" @step="$emit('count', -1)" />
      <p>
        <b data-servings>{{ servings }}</b>servings of {{ onStep(pot.serving_g, 1) }} g
      </p>
      <StepButton icon="plus" :label="`${servings + 1} servings`" @step="$emit('count', 1)" />
    </div>
    <dl>
      <div>
        <dt>sugar a serving</dt>
        <dd>{{ pot.sugars_g_per_serving.toFixed(1) }} g</dd>
      </div>
      <div>
        <dt>tastes like white sugar</dt>
        <dd>{{ pot.sweet_as_sugar_g_per_serving.toFixed(1) }} g</dd>
      </div>
      <div v-if="pot.pot.boils && pot.end.brix !== undefined">
        <dt>°Brix at the end</dt>
        <dd>{{ pot.end.brix.toFixed(0) }}</dd>
      </div>
      <div>
        <dt>in the end</dt>
        <dd>{{ pot.end.mass_g.toFixed(0) }} g, {{ pot.end.volume_ml.toFixed(0) }} ml</dd>
      </div>
      <div>
        <dt>it is</dt>
        <dd class="long">{{ pot.texture }}</dd>
      </div>
      <div>
        <dt>keeps in the fridge</dt>
        <dd>{{ pot.keep_days }} {{ pot.keep_days === 1 ? 'day' : 'days' }}</dd>
      </div>
    </dl>
    <AllergenLine :text="pot.allergen_text" />
    <el-button data-tub :disabled="kept || busy" @click="$emit('tub')"
      ><Icon name="tub" :size="18" />{{ kept ? 'The tub is kept' : 'It is made: keep the tub' }}</el-button
    >
  </section>
</template>

<style scoped>
.makes {
  display: grid;
  gap: var(--s2);
  padding-bottom: var(--s3);
}
.makes > :not(header) {
  margin: 0 var(--s4);
}
.count {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s2);
}
.count p {
  text-align: center;
  color: var(--ink-2);
  font-size: 14px;
}
.count b {
  display: block;
  font-size: var(--t-arm);
  line-height: 1;
  font-weight: 780;
  color: var(--ink);
}
dl {
  display: grid;
  gap: 4px;
  padding-top: var(--s2);
  border-top: 1.5px solid var(--hair);
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: var(--s3);
}
dt {
  color: var(--ink-2);
  white-space: nowrap;
}
dd {
  margin: 0;
  font-weight: 700;
  text-align: right;
}
.long {
  font-weight: 500;
}
</style>
