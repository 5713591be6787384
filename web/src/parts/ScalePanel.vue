<script setup lang="ts">
import AmountField from '@/parts/AmountField.vue'
import { computed, ref } from 'vue'
import Icon from './Icon.vue'
import { useScale } from './useScale'

const { scale, none, trouble, tare, load } = useScale()
const live = computed(() => scale.value?.link === 'live')
const figure = computed(() => {
  if (scale.value?.over) return 'over'
  return scale.value?.grams === undefined ? '–' : scale.value.grams.toFixed(0)
})
const says = computed(() => {
  if (none.value) return 'No scale is connected. Type weights in.'
  if (trouble.value) return trouble.value
  const s = scale.value
  if (!s) return 'Looking for the scale'
  if (s.over) return 'More on it than it can weigh. Take something off.'
  if (s.link !== 'live') return `${s.grams === undefined ? '' : `No reading for ${s.age_s?.toFixed(0)} s. `}${upper(s.says)}.`
  return s.steady ? 'steady' : 'settling'
})
const upper = (t: string) => t.charAt(0).toUpperCase() + t.slice(1)
const put = ref<number>(1000)
</script>

<template>
  <section class="panel device scale" aria-label="Scale" :data-link="none ? 'none' : scale?.link" :data-steady="scale?.steady && live">
    <header>
      <h2>Scale</h2>
      <p v-if="scale?.simulated" class="end">simulated</p>
    </header>
    <div class="shown">
      <output class="figure" :class="{ hollow: !live && scale?.grams !== undefined }">{{ figure }}<small v-if="!scale?.over"> g</small></output>
      <el-button :disabled="!live" aria-label="Zero the scale" @click="tare">Zero</el-button>
    </div>
    <p class="says" :role="live ? undefined : 'status'">
      <i class="sign" :class="live && scale?.steady ? 'in_band' : live || none ? 'unknown' : 'high'" />{{ says }}
    </p>
    <form v-if="scale?.simulated" novalidate class="put" @submit.prevent="load(put ?? 0)">
      <AmountField v-model="put" :limits="{ low: 0, high: 6000 }" label="Put on the simulated scale, g" />
      <el-button native-type="submit"><Icon name="scale" />Put on</el-button>
      <el-button aria-label="Take everything off the simulated scale" @click="load(0)">Off</el-button>
    </form>
  </section>
</template>

<style scoped>
.figure {
  font-size: var(--t-arm);
}
.figure small {
  font-size: var(--t-lead);
}
.hollow {
  color: transparent;
  -webkit-text-stroke: 1.5px var(--ink-2);
}
.hollow small {
  -webkit-text-stroke: 0;
}
.says {
  align-items: center;
  min-height: 26px;
}
.put .amount-field {
  flex: 1;
  min-width: 0;
  width: auto;
}
</style>
