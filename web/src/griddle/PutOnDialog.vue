<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, got, newKey, said, type ListItem, type Schemas } from '@/api/client'
import { forms } from '@/bench/choices'
import AllergenLine from '@/parts/AllergenLine.vue'
import { useBoard } from './board'

/** Which bowl goes on which plate: one that a sheet led, or one that was mixed without it. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ onPlate?: string; ofBatch?: string }>()
const board = useBoard()
const batches = ref<Schemas['BatchListItem'][]>([])
const variations = ref<ListItem[]>([])
const loading = ref(false)
const trouble = ref('')
const chosen = ref<string>() // a batch's id, or that of a variation
const plate = ref<string>()
const says = ref('')
const busy = ref(false)

/** The keys of bowls that were begun here: asked for again after an error it is the same one. */
const begun = new Map<string, string>()
const taken = computed(() => new Set((board.state?.bowls ?? []).map((b) => b.batch)))
const can = computed(() => batches.value.filter((b) => !b.trouble && b.count > 0 && !taken.value.has(b.id)))
const batch = computed(() => can.value.find((b) => b.id === chosen.value))
const without = computed(() => variations.value.find((v) => v.id === chosen.value))
const form = computed(() => batch.value?.form ?? without.value?.form)
/** Plates that take the form of a bowl. */
const takes = (of?: Schemas['Form']) => (board.state?.plates ?? []).filter((p) => !of || p.takes.includes(of))
const plates = computed(() => takes(form.value))

watch(
  open,
  async (now) => {
    if (!now) return
    says.value = trouble.value = ''
    begun.clear()
    loading.value = true
    try {
      const [made, all] = await Promise.all([got(api.GET('/batches')), got(api.GET('/variations', { params: { query: { limit: 200 } } }))])
      batches.value = made.items
      variations.value = all.items
      chosen.value =
        can.value.find((b) => b.id === props.ofBatch)?.id ??
        can.value.find((b) => !props.onPlate || takes(b.form).some((p) => p.id === props.onPlate))?.id
      settle()
    } catch (e) {
      trouble.value = said(e)
    } finally {
      loading.value = false
    }
  },
  { immediate: true },
)
/** The plate that was asked for where it suits, else a free one, one that is made for the form before others. */
function settle() {
  const made = (p: (typeof plates.value)[number]) => !!form.value && !!p.best_for?.includes(form.value)
  const best = [...plates.value].sort((a, b) => Number(!!a.bowl) - Number(!!b.bowl) || Number(made(b)) - Number(made(a)))
  plate.value = plates.value.find((p) => p.id === props.onPlate)?.id ?? best[0]?.id
}
watch(chosen, settle)
const many = (form: string) => forms.find((f) => f.value === form)?.many ?? 'portions'

/** A bowl of a variation that nobody weighed with the sheet. */
async function mixed(v: ListItem) {
  const key = begun.get(v.id) ?? newKey()
  begun.set(v.id, key)
  const { document } = await got(api.GET('/variations/{id}', { params: { path: { id: v.id } } }))
  const body = { variation: document, from: { id: v.id, revision: v.revision } }
  const { id } = await got(api.POST('/batches', { params: { header: { 'Idempotency-Key': key } }, body }))
  await got(api.POST('/batches/{id}/events', { params: { path: { id } }, body: { id: key, kind: 'made' } }))
  return id
}
async function put() {
  if (!plate.value || !form.value) return
  busy.value = true
  try {
    const id = batch.value?.id ?? (await mixed(without.value!))
    says.value = await board.tell({ kind: 'put_on', batch: id, plate: plate.value }, `${batch.value?.name ?? without.value?.name} put on`, true)
    if (!says.value) {
      begun.clear()
      open.value = false
    }
  } catch (e) {
    says.value = said(e)
  }
  busy.value = false
}
</script>

<template>
  <el-dialog v-model="open" title="Put a bowl on" width="min(560px, 96vw)" append-to-body>
    <p v-if="loading">Looking for bowls</p>
    <p v-else-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
    <form v-else-if="can.length || variations.length" @submit.prevent="put">
      <el-form-item label="The bowl">
        <el-radio-group v-model="chosen" class="bowls" aria-label="The bowl">
          <el-radio v-for="b in can" :key="b.id" :value="b.id" border :data-bowl="b.name"
            ><span class="one"
              ><b>{{ b.name }}</b
              ><small v-if="!b.weighed && !b.made" class="warn"><i class="sign high" />nothing of it is weighed yet</small
              ><small v-else>{{ b.count }} {{ many(b.form) }}, {{ b.made ? 'made' : b.doing || 'all steps done' }}</small></span
            ></el-radio
          >
          <h3 v-if="variations.length">Mixed without the sheet</h3>
          <el-radio v-for="v in variations" :key="v.id" :value="v.id" border :data-without="v.name"
            ><span class="one"
              ><b>{{ v.name }}</b
              ><small>{{ many(v.form) }}, by its recipe</small></span
            ></el-radio
          >
        </el-radio-group>
      </el-form-item>
      <p v-if="batch && !batch.weighed && !batch.made" class="note"><i class="sign high" />Weigh it first, or the batter is not there.</p>
      <p v-if="without" class="note">
        What was really weighed, how long it rested and stood is not known: the plate goes by the recipe, and nothing comes off the pantry. What it
        contains is what the recipe says.
      </p>
      <AllergenLine v-if="without?.picture" :text="without.picture.allergens" class="contains" />
      <el-form-item v-if="plates.length" label="goes on" :error="says">
        <el-radio-group v-model="plate" class="pick" aria-label="The plate">
          <el-radio-button v-for="p in plates" :key="p.id" :value="p.id">{{ p.name }}</el-radio-button>
        </el-radio-group>
      </el-form-item>
      <p v-else class="muted">
        Nothing in the Kitchen takes this batter: a waffle needs an iron, the rest a plate or a pan. Add yours there and begin a new board.
      </p>
      <p class="acts"><el-button class="go" native-type="submit" :loading="busy" :disabled="!form || !plate">Put it on</el-button></p>
    </form>
    <div v-else class="empty">
      <p>There is nothing to cook yet. Open a variation on the bench and press “Make this”.</p>
      <router-link class="el-button go" to="/">To the bench</router-link>
    </div>
  </el-dialog>
</template>

<style scoped>
.bowls h3 {
  font-size: var(--t-body);
  margin: var(--s2) 0 0;
}
.warn {
  color: var(--beet);
}
.warn .sign,
.note .sign {
  margin-right: var(--s2);
}
.note,
.contains {
  margin-bottom: var(--s3);
}
.bowls {
  display: grid;
  gap: var(--s2);
  width: 100%;
  max-height: 40vh;
  overflow-y: auto;
}
.bowls .el-radio {
  height: auto;
  min-height: 52px;
  margin: 0;
  padding: 4px var(--s3);
  white-space: normal;
}
.one {
  display: grid;
  line-height: 1.2;
  overflow-wrap: anywhere;
}
small {
  color: var(--ink-2);
}
.pick.el-radio-group {
  flex-wrap: wrap;
}
.empty {
  display: grid;
  gap: var(--s3);
  justify-items: start;
}
.empty a {
  text-decoration: none;
}
</style>
