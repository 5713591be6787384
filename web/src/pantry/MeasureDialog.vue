<script setup lang="ts">
import { ask } from '@/parts/ask'
import { ref, watch } from 'vue'
import { say } from '@/parts/say'
import { faultsOf, type Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import ScalePanel from '@/parts/ScalePanel.vue'
import WeightField from '@/parts/WeightField.vue'
import GlassPanel from '@/prep/GlassPanel.vue'
import { usePantry } from './pantry'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ ingredient: Schemas['Ingredient']; readable: boolean; pieces: boolean }>()
const pantry = usePantry()
type Wish = Partial<Schemas['MeasurementWish']>
const wish = ref<Wish>({})
const faults = ref<Record<string, string>>({})
const busy = ref(false)
watch(open, (o) => {
  if (o) {
    wish.value = {}
    faults.value = {}
  }
})

async function keep() {
  busy.value = true
  try {
    await pantry.create(await ask('/measurements', { ...(JSON.parse(JSON.stringify(wish.value)) as Wish), ingredient: props.ingredient.id }))
    open.value = false
    say({ message: 'Measured. It counts for every variation from now on; the table’s value stays beside it.', duration: 4000 })
  } catch (e) {
    faults.value = faultsOf(e)
  }
  busy.value = false
}
</script>

<template>
  <el-dialog v-model="open" :title="`Measure ${ingredient.label.toLowerCase()}`" width="min(760px, 96vw)" append-to-body>
    <div v-if="open" class="two">
      <form novalidate class="ways" @submit.prevent="keep">
        <fieldset v-if="readable" class="well">
          <legend>A drop on the refractometer</legend>
          <WeightField v-model="wish.brix" name="brix" label="Reads, at 20 °C" unit="°Brix" :step="0.1" :fault="faults.brix ?? faults.sample_c" />
        </fieldset>
        <fieldset class="well">
          <legend>A cup of it, levelled</legend>
          <WeightField v-model="wish.cup_ml" name="cup_ml" label="The cup holds" unit="ml" :fault="faults.cup_ml" />
          <WeightField v-model="wish.cup_g" name="cup_g" label="It weighs" unit="g" weigh :fault="faults.cup_g" />
        </fieldset>
        <fieldset v-if="pieces" class="well">
          <legend>Ten pieces, or more</legend>
          <WeightField v-model="wish.pieces" name="pieces" label="Pieces" :fault="faults.pieces" />
          <WeightField v-model="wish.pieces_g" name="pieces_g" label="Together" unit="g" weigh :step="0.1" :fault="faults.pieces_g" />
        </fieldset>
        <p v-if="faults['']" class="fault" role="alert">{{ faults[''] }}</p>
        <el-button class="go" native-type="submit" :loading="busy"><Icon name="tick" />Save</el-button>
      </form>
      <div class="tools"><ScalePanel /><GlassPanel v-if="readable" @read="wish.brix = $event" /></div>
    </div>
  </el-dialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 290px);
  gap: var(--s3);
  align-items: start;
}
.ways,
.tools {
  display: grid;
  gap: var(--s3);
  align-content: start;
}
fieldset {
  border: 0;
  margin: 0;
  padding: var(--s2) var(--s3) var(--s3);
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--s2) var(--s3);
}
legend {
  float: left;
  grid-column: 1 / -1;
  font-weight: 700;
  padding: 0;
}
.tools :deep(.panel) {
  border: 0;
  box-shadow: none;
  background: var(--well);
  border-radius: var(--r-well);
}
.fault {
  color: var(--beet);
}
@media (max-width: 720px) {
  .two,
  fieldset {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
