<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, got, said, type Schemas } from '@/api/client'
import { forms } from '@/bench/choices'
import { useBoard } from './board'

/** Which bowl goes on which plate. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ onPlate?: string; ofBatch?: string }>()
const board = useBoard()
const items = ref<Schemas['BatchList']['items']>([])
const loading = ref(false)
const trouble = ref('')
const batch = ref<string>()
const plate = ref<string>()
const says = ref('')
const busy = ref(false)

const taken = computed(() => new Set((board.state?.bowls ?? []).map((b) => b.batch)))
const can = computed(() => items.value.filter((b) => !b.trouble && b.count > 0 && !taken.value.has(b.id)))
const chosen = computed(() => can.value.find((b) => b.id === batch.value))
/** Plates that take the form of a bowl. */
const takes = (form?: Schemas['Form']) => (board.state?.plates ?? []).filter((p) => !form || p.takes.includes(form))
const plates = computed(() => takes(chosen.value?.form))

watch(
  open,
  async (now) => {
    if (!now) return
    says.value = trouble.value = ''
    loading.value = true
    try {
      items.value = (await got(api.GET('/batches'))).items
      batch.value =
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
  const form = chosen.value?.form
  const made = (p: (typeof plates.value)[number]) => !!form && !!p.best_for?.includes(form)
  const best = [...plates.value].sort((a, b) => Number(!!a.bowl) - Number(!!b.bowl) || Number(made(b)) - Number(made(a)))
  plate.value = plates.value.find((p) => p.id === props.onPlate)?.id ?? best[0]?.id
}
watch(batch, settle)
const many = (form: string) => forms.find((f) => f.value === form)?.many ?? 'portions'
async function put() {
  if (!batch.value || !plate.value) return
  busy.value = true
  says.value = await board.tell({ kind: 'put_on', batch: batch.value, plate: plate.value }, `${chosen.value?.name} put on`, true)
  busy.value = false
  if (!says.value) open.value = false
}
</script>

<template>
  <el-dialog v-model="open" title="Put a bowl on" width="min(560px, 96vw)" append-to-body>
    <p v-if="loading">Looking for bowls</p>
    <p v-else-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
    <form v-else-if="can.length" @submit.prevent="put">
      <el-form-item label="The bowl">
        <el-radio-group v-model="batch" class="bowls" aria-label="The bowl">
          <el-radio v-for="b in can" :key="b.id" :value="b.id" border :data-bowl="b.name"
            ><span class="one"
              ><b>{{ b.name }}</b
              ><small>{{ b.count }} {{ many(b.form) }}, {{ b.made ? 'made' : b.doing || 'all steps done' }}</small></span
            ></el-radio
          >
        </el-radio-group>
      </el-form-item>
      <el-form-item v-if="plates.length" label="goes on" :error="says">
        <el-radio-group v-model="plate" class="pick" aria-label="The plate">
          <el-radio-button v-for="p in plates" :key="p.id" :value="p.id">{{ p.name }}</el-radio-button>
        </el-radio-group>
      </el-form-item>
      <p v-else class="muted">
        Nothing in the Kitchen takes this batter: a waffle needs an iron, the rest a plate or a pan. Add yours there and begin a new board.
      </p>
      <p class="acts"><el-button class="go" native-type="submit" :loading="busy" :disabled="!batch || !plate">Put it on</el-button></p>
    </form>
    <div v-else class="empty">
      <p>No bowl is made or under way that is not on the board already. Make one: open a variation on the bench and press “Make this”.</p>
      <router-link class="el-button go" to="/">To the bench</router-link>
    </div>
  </el-dialog>
</template>

<style scoped>
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
