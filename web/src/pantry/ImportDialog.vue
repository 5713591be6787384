<script setup lang="ts">
import { ref, watch } from 'vue'
import { say } from '@/parts/say'
import { said, sent, type Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { usePantry } from './pantry'

const open = defineModel<boolean>({ required: true })
const pantry = usePantry()
const file = ref<File>()
const report = ref<Schemas['ImportReport']>()
const trouble = ref('')
const busy = ref(false)
const input = ref<HTMLInputElement>()
watch(open, (o) => {
  if (o) {
    file.value = report.value = undefined
    trouble.value = ''
  }
})

// The bytes go as they are: the program says whether it can read them.
async function send(dry: boolean) {
  if (!file.value) return
  busy.value = true
  try {
    const r = await sent(`/pantry-file?dry_run=${dry}`, { method: 'POST', headers: { 'Content-Type': 'text/csv' }, body: file.value })
    report.value = (await r.json()) as Schemas['ImportReport']
    trouble.value = ''
    if (!dry) {
      await pantry.moved()
      say({ message: `${report.value.added} added, ${report.value.changed} changed.`, duration: 4000 })
      open.value = false
    }
  } catch (e) {
    report.value = undefined
    trouble.value = said(e)
  }
  busy.value = false
}
function choose(e: Event) {
  file.value = (e.target as HTMLInputElement).files?.[0]
  void send(true)
}
const signs: Record<string, string> = { added: 'in_band', changed: 'ring', refused: 'high', same: 'unknown' }
</script>

<template>
  <el-dialog v-model="open" title="Read a pantry file" width="min(760px, 96vw)" append-to-body>
    <div v-if="open" class="import">
      <p class="muted">CSV in UTF-8 with the columns that “Export” writes. Nothing is saved before you have seen what becomes of every row.</p>
      <input ref="input" type="file" accept=".csv,text/csv" class="vh" aria-label="Pantry file" @change="choose" />
      <el-button :loading="busy" @click="input?.click()"><Icon name="list" />{{ file?.name ?? 'Choose a file' }}</el-button>
      <p v-if="trouble" class="fault" role="alert"><i class="sign high" />{{ trouble }}</p>
      <template v-if="report">
        <p class="sum">
          <b>{{ report.added }}</b> added · <b>{{ report.changed }}</b> changed · <b>{{ report.same }}</b> say the same ·
          <b>{{ report.refused }}</b> refused
        </p>
        <el-table
          v-if="report.rows.length"
          :data="report.rows"
          max-height="320"
          class="rows"
          empty-text="Every row says what the pantry says already.">
          <el-table-column prop="line" label="Row" width="70" />
          <el-table-column label="What becomes of it" width="170"
            ><template #default="{ row }"
              ><span class="fate" :data-action="row.action"><i class="sign" :class="signs[row.action]" />{{ row.action }}</span></template
            ></el-table-column
          >
          <el-table-column label="Ingredient" min-width="160"
            ><template #default="{ row }">{{ row.name || row.id }}</template></el-table-column
          >
          <el-table-column label="Why" min-width="240"
            ><template #default="{ row }">{{ row.message }}</template></el-table-column
          >
        </el-table>
        <p v-else class="muted">Every row says what the pantry says already.</p>
        <el-button class="go" :disabled="!report.added && !report.changed" :loading="busy" @click="send(false)"
          >Save {{ report.added + report.changed }} {{ report.added + report.changed === 1 ? 'row' : 'rows' }}</el-button
        >
      </template>
    </div>
  </el-dialog>
</template>

<style scoped>
.import {
  display: grid;
  gap: var(--s3);
  justify-items: start;
}
.fault {
  display: flex;
  gap: var(--s2);
  color: var(--beet);
}
.rows {
  width: 100%;
}
.fate {
  display: inline-flex;
  align-items: center;
  gap: var(--s2);
}
</style>
