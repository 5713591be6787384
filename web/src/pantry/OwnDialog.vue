<script setup lang="ts">
import { ask } from '@/parts/ask'
import { waits } from '@/away/outbox'
import { computed, ref, watch } from 'vue'
import { say } from '@/parts/say'
import { api, got, said, faultsOf, type Ingredient, type Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import WeightField from '@/parts/WeightField.vue'
import { groups, roles } from './words'
import { usePantry, type Item, type Listed } from './pantry'

/** An ingredient of one's own: from a pack, or with every figure. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ edit?: Listed; called?: string }>() // an own ingredient whose figures are changed, or the name of a new one
const pantry = usePantry()
const way = ref<'pack' | 'all'>('pack')
const name = ref('')
const like = ref('')
const shelf = ref<Ingredient[]>([])
const label = ref<Partial<Schemas['LabelWish']>>({})
const item = ref<Partial<Item>>({})
const faults = ref<Record<string, string>>({})
const busy = ref(false)
const allergens = ref<string[]>([])
const chosen = ref<string[]>()
watch(
  open,
  async (o) => {
    if (!o) return
    way.value = props.edit ? 'all' : 'pack'
    name.value = props.edit?.item.name ?? props.called ?? ''
    like.value = ''
    label.value = {}
    item.value = props.edit ? (JSON.parse(JSON.stringify(props.edit.item)) as Item) : {}
    chosen.value = props.edit?.item.allergens
    faults.value = {}
    try {
      const all = await got(api.GET('/ingredients', { params: { query: { limit: 500 } } }))
      shelf.value = all.items
      allergens.value = all.allergens
    } catch (e) {
      faults.value = { '': said(e) }
    }
  },
  { immediate: true },
)
const packFields = [
  ['energy_kcal', 'Energy', 'kcal'],
  ['fat_g', 'Fat', 'g'],
  ['carbohydrate_g', 'Carbohydrate', 'g'],
  ['sugars_g', 'of which sugars', 'g'],
  ['fibre_g', 'Fibre', 'g'],
  ['protein_g', 'Protein', 'g'],
  ['salt_g', 'Salt', 'g'],
] as const
const allFields = [
  ['water_g', 'Water', 'g'],
  ['protein_g', 'Protein', 'g'],
  ['fat_g', 'Fat', 'g'],
  ['carbohydrate_g', 'Carbohydrate, with fibre', 'g'],
  ['sugars_g', 'All sugars', 'g'],
  ['sucrose_g', 'Sucrose', 'g'],
  ['glucose_g', 'Glucose', 'g'],
  ['fructose_g', 'Fructose', 'g'],
  ['lactose_g', 'Lactose', 'g'],
  ['starch_g', 'Starch', 'g'],
  ['fibre_g', 'Fibre', 'g'],
  ['ash_g', 'Minerals', 'g'],
  ['alcohol_g', 'Alcohol', 'g'],
  ['sodium_mg', 'Sodium', 'mg'],
  ['acid_meq', 'Acid', 'meq'],
  ['body', 'Body', 'of flour'],
  ['density_g_per_ml', 'A ml weighs', 'g'],
  ['piece_mass_g', 'A piece weighs', 'g'],
  ['piece_length_mm', 'A piece is long', 'mm'],
  ['piece_width_mm', 'A piece is wide', 'mm'],
  ['piece_height_mm', 'It lies as high as', 'mm'],
  ['release_fraction', 'Gives to the batter', '0–1'],
] as const
const fault = (k: string) => faults.value[k]
const general = computed(() => faults.value[''])

async function keep() {
  busy.value = true
  faults.value = {}
  try {
    let made: Item | undefined
    if (props.edit) {
      await pantry.change(props.edit, {
        ...(JSON.parse(JSON.stringify(item.value)) as Item),
        energy_kcal: undefined,
        name: name.value,
        allergens: chosen.value ?? [],
      })
      open.value = false
      return
    }
    if (way.value === 'pack') {
      made = await ask('/labels', {
        ...(JSON.parse(JSON.stringify(label.value)) as object),
        name: name.value,
        like: like.value,
        ...(chosen.value ? { allergens: chosen.value } : {}),
      })
    } else {
      made = { ...(JSON.parse(JSON.stringify(item.value)) as Item), id: '', name: name.value, allergens: chosen.value ?? [] }
    }
    const { landed } = await pantry.create(made)
    open.value = false
    say({ message: landed ? `“${name.value}” is in the pantry.` : waits(`“${name.value}”`), duration: 4000 })
  } catch (e) {
    faults.value = faultsOf(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <el-dialog v-model="open" :title="edit ? `The figures of ${edit.item.name}` : 'An ingredient of your own'" width="min(720px, 96vw)" append-to-body>
    <form v-if="open" novalidate class="own" @submit.prevent="keep">
      <el-radio-group v-if="!edit" v-model="way" class="pick" aria-label="What you have"
        ><el-radio-button value="pack">what the pack says</el-radio-button><el-radio-button value="all">every figure</el-radio-button></el-radio-group
      >
      <div class="names">
        <div>
          <label for="own-name">Name</label><el-input id="own-name" v-model="name" maxlength="200" />
          <p v-if="fault('name')" class="fault" role="alert">{{ fault('name') }}</p>
        </div>
        <div v-if="way === 'pack'">
          <label for="own-like">Most like</label>
          <el-select id="own-like" v-model="like" filterable placeholder="for what the pack does not say"
            ><el-option v-for="i in shelf" :key="i.id" :value="i.id" :label="i.name"
          /></el-select>
          <p v-if="fault('like')" class="fault" role="alert">{{ fault('like') }}</p>
        </div>
        <template v-else>
          <div>
            <label for="own-group">Stands with</label
            ><el-select id="own-group" v-model="item.group" filterable
              ><el-option v-for="(l, g) in groups" :key="g" :value="g" :label="l"
            /></el-select>
          </div>
          <div>
            <label for="own-role">Works as</label
            ><el-select id="own-role" v-model="item.role" filterable><el-option v-for="(l, r) in roles" :key="r" :value="r" :label="l" /></el-select>
          </div>
        </template>
      </div>
      <p class="muted">In 100 g</p>
      <div v-if="way === 'pack'" class="figures">
        <WeightField
          v-for="[k, l, u] in packFields"
          :key="k"
          v-model="label[k]"
          :name="`pack-${k}`"
          :label="l"
          :unit="u"
          :step="0.1"
          :fault="fault(k)" />
      </div>
      <div v-else class="figures">
        <WeightField
          v-for="[k, l, u] in allFields"
          :key="k"
          v-model="item[k]"
          :name="`own-${k}`"
          :label="l"
          :unit="u"
          :step="0.1"
          :fault="fault(k)" />
      </div>
      <div>
        <label for="own-allergens">Allergens</label
        ><el-select id="own-allergens" v-model="chosen" multiple filterable clearable placeholder="as the pack says"
          ><el-option v-for="a in allergens" :key="a" :value="a" :label="a"
        /></el-select>
      </div>
      <p v-if="general" class="fault" role="alert">{{ general }}</p>
      <el-button class="go" native-type="submit" :loading="busy"><Icon name="tick" />{{ edit ? 'Save' : 'Put it in the pantry' }}</el-button>
    </form>
  </el-dialog>
</template>

<style scoped>
.own {
  display: grid;
  gap: var(--s3);
}
.own label {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
  padding-bottom: 2px;
}
.names {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: var(--s3);
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: var(--s2) var(--s3);
}
.fault {
  color: var(--beet);
  font-size: var(--t-mini);
}
.go,
.pick {
  justify-self: start;
}
</style>
