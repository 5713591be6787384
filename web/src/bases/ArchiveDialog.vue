<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { say } from '@/parts/say'
import { said, sent, type Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { useBench } from '@/bench/bench'
import { useBases } from './bases'

/** A whole kitchen, or one document, read in: first what it would do, then, if wished, doing it. */
const open = defineModel<boolean>({ required: true })
const bases = useBases()
const bench = useBench()
const file = ref<File>()
const report = ref<Schemas['ArchiveReport']>()
const trouble = ref('')
const progress = ref<{ done: number; total: number }>()
const looking = ref(false)
const input = ref<HTMLInputElement>()
watch(open, (o) => {
  if (o) {
    file.value = report.value = progress.value = undefined
    trouble.value = ''
  }
})
const share = computed(() => (progress.value?.total ? Math.round((100 * progress.value.done) / progress.value.total) : 0))

async function look(e: Event) {
  file.value = (e.target as HTMLInputElement).files?.[0]
  if (!file.value) return
  report.value = undefined
  looking.value = true
  try {
    const r = await sent('/archive?dry_run=true', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: file.value })
    report.value = (await r.json()) as Schemas['ArchiveReport']
    trouble.value = ''
  } catch (e) {
    trouble.value = said(e)
  }
  looking.value = false
}

/** The program answers a line for every hundred documents, and the report as the last. */
async function keep() {
  if (!file.value) return
  progress.value = { done: 0, total: 0 }
  try {
    const r = await sent('/archive', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: file.value })
    const reader = r.body!.pipeThrough(new TextDecoderStream()).getReader()
    let rest = ''
    for (;;) {
      const { value, done } = await reader.read()
      rest += value ?? ''
      const lines = rest.split('\n')
      rest = lines.pop() ?? ''
      for (const line of lines.filter(Boolean)) take(JSON.parse(line) as Record<string, unknown>)
      if (done) break
    }
    await Promise.all([bases.load(), bench.refreshList()])
  } catch (e) {
    trouble.value = said(e)
  }
  progress.value = undefined
}
function take(line: Record<string, unknown>) {
  if ('failed' in line) trouble.value = line.failed as string
  else if ('total' in line) progress.value = line as unknown as { done: number; total: number }
  else {
    report.value = line as unknown as Schemas['ArchiveReport']
    say({ message: `${report.value.added} added, ${report.value.changed} changed.`, duration: 4000 })
    if (!report.value.refused) open.value = false
  }
}
const kinds: Record<string, string> = { kitchen: 'kitchen', pantry: 'pantry', text: 'recipe text', base: 'base', variation: 'variation' }
const signs: Record<string, string> = { added: 'in_band', changed: 'ring', refused: 'high', same: 'unknown' }
</script>

<template>
  <el-dialog v-model="open" title="Import" width="min(820px, 96vw)" append-to-body>
    <div v-if="open" class="archive">
      <p class="muted">
        A whole kitchen, a base, a variation or a pantry item, as “Export” writes them. Nothing is saved before you have seen what would become of it.
      </p>
      <input ref="input" type="file" accept=".json,application/json" class="vh" aria-label="File" @change="look" />
      <el-button :disabled="!!progress" :loading="looking" @click="input?.click()"><Icon name="list" />{{ file?.name ?? 'Choose a file' }}</el-button>
      <p v-if="trouble" class="fault" role="alert"><i class="sign high" />{{ trouble }}</p>
      <el-progress
        v-if="progress"
        :percentage="share"
        :stroke-width="14"
        :show-text="true"
        class="progress"
        aria-label="How much of the file is saved" />
      <template v-if="report && !progress">
        <p>
          <b>{{ report.added }}</b> new · <b>{{ report.changed }}</b> changed · <b>{{ report.same }}</b> the same ·
          <b>{{ report.refused }}</b> refused
        </p>
        <el-table v-if="report.items.length" :data="report.items" max-height="330">
          <el-table-column label="" width="120"
            ><template #default="{ row }"
              ><span class="fate" :data-action="row.action"><i class="sign" :class="signs[row.action]" />{{ row.action }}</span></template
            ></el-table-column
          >
          <el-table-column label="" width="96"
            ><template #default="{ row }">{{ kinds[row.kind] }}</template></el-table-column
          >
          <el-table-column prop="name" label="Name" min-width="150" />
          <el-table-column label="What differs" min-width="260"
            ><template #default="{ row }">{{ row.message ?? row.changes?.join(' · ') }}</template></el-table-column
          >
        </el-table>
        <p v-else class="muted">Everything in it is here already. Earlier states and names that are missing here can still come along.</p>
        <el-button v-if="!report.saved" class="go" :disabled="!report.added && !report.changed && !report.same" @click="keep">{{
          report.added + report.changed ? `Save ${report.added + report.changed}` : 'Bring what it was before'
        }}</el-button>
      </template>
    </div>
  </el-dialog>
</template>

<style scoped>
.archive {
  display: grid;
  gap: var(--s3);
  justify-items: start;
}
.archive .el-table,
.progress {
  width: 100%;
}
.fault {
  display: flex;
  gap: var(--s2);
  color: var(--beet);
}
.fate {
  display: inline-flex;
  align-items: center;
  gap: var(--s2);
}
</style>
