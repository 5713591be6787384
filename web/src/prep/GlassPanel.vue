<script setup lang="ts">
import AmountField from '@/parts/AmountField.vue'
import { ref } from 'vue'
import { api, got, said } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { useScale } from '@/parts/useScale'

/** The refractometer: one reading at a time, corrected to 20 °C by the program. */
const emit = defineEmits<{ read: [brix: number] }>()
const reading = ref<{ brix: number; shown: number; sample_c: number }>()
const trouble = ref('')
const busy = ref(false)
const sample = ref<{ brix?: number; sample_c?: number }>({ brix: 12, sample_c: 26 })
const open = ref(false)
const { scale } = useScale() // where one device is simulated, so is the other

async function read() {
  busy.value = true
  try {
    reading.value = undefined
    const taken = await got(api.POST('/devices/refractometer/readings'))
    reading.value = taken
    trouble.value = ''
    emit('read', Number(taken.brix.toFixed(1)))
  } catch (e) {
    trouble.value = said(e)
  }
  busy.value = false
}
async function put() {
  try {
    await api.POST('/devices/refractometer/sample', { body: { brix: sample.value.brix ?? 0, sample_c: sample.value.sample_c ?? 20 } })
    trouble.value = ''
  } catch (e) {
    trouble.value = said(e)
  }
}
</script>

<template>
  <section class="panel device glass" aria-label="Refractometer">
    <header>
      <h2>Refractometer</h2>
      <button v-if="scale?.simulated" type="button" class="end link" :aria-expanded="open" @click="open = !open">simulated sample</button>
    </header>
    <div class="shown">
      <output class="figure">{{ reading ? reading.brix.toFixed(1) : '–' }}<small> °Brix</small></output>
      <el-button :loading="busy" @click="read"><Icon name="drop" />Read</el-button>
    </div>
    <p v-if="trouble" class="says fault" role="alert"><i class="sign high" />{{ trouble }}</p>
    <p v-else-if="reading" class="says">{{ reading.shown.toFixed(1) }} shown at {{ reading.sample_c.toFixed(0) }} °C, corrected to 20 °C</p>
    <form v-if="open" novalidate class="put" @submit.prevent="put">
      <label>°Brix<AmountField v-model="sample.brix" :limits="{ low: 0, high: 85 }" label="True °Brix of the simulated sample" /></label>
      <label>°C<AmountField v-model="sample.sample_c" :limits="{ low: 10, high: 40 }" label="Temperature of the simulated sample" /></label>
      <el-button native-type="submit">Put on</el-button>
    </form>
  </section>
</template>

<style scoped>
.figure {
  font-size: var(--t-figure);
}
.figure small {
  font-size: var(--t-body);
}
.says {
  align-items: baseline;
}
.fault {
  color: var(--beet);
}
.link {
  border: 0;
  background: none;
  color: var(--rim);
  font-size: var(--t-mini);
  cursor: pointer;
  min-height: var(--touch);
  margin-top: -12px;
  border-radius: var(--s2);
  text-decoration: underline;
}
.put {
  align-items: end;
}
.put label {
  flex: 1;
  font-size: var(--t-mini);
  color: var(--ink-2);
}
.put .amount-field {
  width: 100%;
}
</style>
