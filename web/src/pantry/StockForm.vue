<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { waits } from '@/away/outbox'
import { say } from '@/parts/say'
import type { Schemas } from '@/api/client'
import WeightField from '@/parts/WeightField.vue'
import { usePantry } from './pantry'

/** Price and stock of one ingredient: kept with its tub, or as a note of its own. */
const props = defineProps<{ ingredient: Schemas['Ingredient'] }>()
const pantry = usePantry()
const mine = computed(() => pantry.items.filter((i) => i.own.ingredient === props.ingredient.id))
const holder = computed(() => mine.value.find((i) => i.item.price_per_kg !== undefined) ?? mine.value[0])
const price = ref<number>()
const stock = ref<number>()
watch(
  holder,
  (h) => {
    price.value = h?.item.price_per_kg
    stock.value = h?.item.stock_g
  },
  { immediate: true },
)
const changed = computed(() => price.value !== holder.value?.item.price_per_kg || stock.value !== holder.value?.item.stock_g)

const tell = (what: string, waiting: boolean) => waiting && say({ message: waits(what), duration: 5000 })
async function keep() {
  try {
    const what = `The stock of ${props.ingredient.label}`
    if (holder.value) tell(what, (await pantry.change(holder.value, { price_per_kg: price.value, stock_g: stock.value })) === 'offline')
    else {
      const { landed } = await pantry.create({
        id: `stock_${props.ingredient.id}`,
        name: props.ingredient.label,
        stands_for: props.ingredient.id,
        price_per_kg: price.value,
        stock_g: stock.value,
      })
      tell(what, !landed)
    }
  } catch (e) {
    say({ message: (e as Error).message, duration: 6000, showClose: true })
  }
}
</script>

<template>
  <form novalidate class="stock" @submit.prevent="keep">
    <WeightField v-model="price" name="price" label="Price of a kilo" :step="0.1" />
    <WeightField v-model="stock" name="stock" label="There are" unit="g" weigh />
    <el-button native-type="submit" :disabled="!changed">Save</el-button>
  </form>
</template>

<style scoped>
.stock {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s3);
  align-items: end;
}
.stock > :deep(.field) {
  flex: 0 1 170px;
}
</style>
