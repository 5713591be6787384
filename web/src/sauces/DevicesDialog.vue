<script setup lang="ts">
import AmountField from '@/parts/AmountField.vue'
import { ref, watch } from 'vue'
import { api, got, said } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import ScalePanel from '@/parts/ScalePanel.vue'
import GlassPanel from '@/prep/GlassPanel.vue'

/** The scale, the probe and the refractometer beside the stove; what is simulated is set here. */
const open = defineModel<boolean>({ required: true })
const probe = ref<number>()
const simulated = ref(false)
const none = ref(false)
const trouble = ref('')
const put = ref<number>(100.5)
async function read() {
  try {
    const heats = await got(api.GET('/devices/thermometer'))
    probe.value = heats.probe_c
    simulated.value = heats.simulated
    none.value = heats.link === 'none'
    trouble.value = heats.link === 'live' ? '' : heats.says || 'No probe is connected: weigh the pot, or go by eye.'
  } catch (e) {
    none.value = true
    trouble.value = said(e)
  }
}
watch(open, (o) => o && void read())
async function stick() {
  try {
    await api.POST('/devices/thermometer/heat', { body: { c: put.value ?? 0 } })
    await read()
  } catch (e) {
    trouble.value = said(e)
  }
}
</script>

<template>
  <el-dialog v-model="open" title="Beside the stove" width="min(420px, 96vw)" append-to-body>
    <div class="devices">
      <ScalePanel />
      <section class="panel device" aria-label="Probe">
        <header>
          <h2>Probe</h2>
          <p v-if="simulated" class="end">simulated</p>
        </header>
        <div class="shown">
          <output class="figure">{{ probe === undefined ? '–' : probe.toFixed(1) }}<small> °C</small></output>
          <el-button @click="read"><Icon name="probe" :size="18" />Read</el-button>
        </div>
        <p v-if="trouble" class="says" role="status"><i class="sign" :class="none ? 'unknown' : 'high'" />{{ trouble }}</p>
        <form v-if="simulated" novalidate class="put" @submit.prevent="stick">
          <AmountField v-model="put" :limits="{ low: 0, high: 240 }" label="What the simulated probe sticks in, °C" />
          <el-button native-type="submit">Stick it in</el-button>
        </form>
      </section>
      <GlassPanel />
    </div>
  </el-dialog>
</template>

<style scoped>
.devices {
  display: grid;
  gap: var(--s3);
}
.figure {
  font-size: var(--t-figure);
}
.put .amount-field {
  flex: 1;
}
</style>
