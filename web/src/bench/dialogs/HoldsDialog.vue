<script setup lang="ts">
import { ask } from '@/parts/ask'
import { computed, ref, watch } from 'vue'
import { say } from '@/parts/say'
import { api, got, newKey, said, type Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'
import { holds } from '@/bench/choices'
import SourceText from '@/parts/SourceText.vue'

const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const held = computed({
  get: () => bench.doc?.offset?.hold ?? bench.sheet?.held ?? [],
  set: (v) => bench.change((d) => (d.offset = { ...d.offset, hold: holds.map((h) => h.value).filter((h) => v.includes(h)) })),
})
const written = computed(() => bench.doc?.reference?.kind === 'as_written')
const to = computed({ get: () => (written.value ? 'as_written' : 'plain'), set: (kind) => bench.holdTo(kind) })
const pulled = computed(() => Object.keys(bench.doc?.offset?.targets ?? {}).length > 0)
function letGo() {
  bench.change((d) => {
    if (d.offset) delete d.offset.targets
  })
}

/** The base behind the recipe, worked out and shown before it is kept. */
const behind = ref<Schemas['Base']>()
const trouble = ref('')
watch([shown, () => bench.doc?.reference], () => {
  behind.value = undefined
  trouble.value = ''
})
async function findBehind() {
  try {
    behind.value = await ask('/plain-bases', { variation: bench.doc! })
    trouble.value = ''
  } catch (e) {
    trouble.value = said(e)
  }
}
async function keepBehind() {
  try {
    const kept = await got(api.POST('/bases', { params: { header: { 'Idempotency-Key': newKey() } }, body: behind.value! }))
    say({ message: `“${kept.document.name}” is among your bases.`, duration: 5000 })
    behind.value = undefined
  } catch (e) {
    trouble.value = said(e)
  }
}
const amounts = (b: Schemas['Base']) =>
  b.lines
    .map((l) => `${bench.sheet?.lines.find((x) => x.id === l.id)?.label ?? l.ingredient} ${l.amount} ${l.unit === 'each' ? '' : l.unit}`.trim())
    .join(' · ')
const sugarBy = computed({
  get: () => bench.doc?.offset?.sugar_by ?? 'sweetness',
  set: (v) => bench.change((d) => (d.offset = { ...d.offset, sugar_by: v })),
})
/** What may give way below its floor. */
const floors = [
  { role: 'liquid', says: 'A third of the milk always stays' },
  { role: 'flour', says: 'A third of the flour always stays' },
  { role: 'fat', says: 'Half of the fat always stays' },
] as const
const low = computed(() => [...(bench.doc?.offset?.allow_low ?? []), ...(bench.doc?.offset?.allow_low_liquid ? ['liquid' as const] : [])])
function keepFloor(role: (typeof floors)[number]['role'], stays: boolean) {
  const roles = floors.map((f) => f.role).filter((r) => (r === role ? !stays : low.value.includes(r)))
  bench.change((d) => {
    d.offset = { ...d.offset, allow_low: roles }
    delete d.offset.allow_low_liquid
    if (!roles.length) delete d.offset.allow_low
  })
}
</script>

<template>
  <el-dialog v-model="shown" append-to-body title="What must match the base" width="min(520px, 96vw)">
    <el-radio-group v-model="to" class="pick" aria-label="Match">
      <el-radio-button value="plain">the plain base</el-radio-button><el-radio-button value="as_written">the recipe as written</el-radio-button>
    </el-radio-group>
    <p class="muted">
      {{
        written
          ? 'A recipe that was written with its additions in it moves nothing. Change an amount, or put something else in the place of one, and the rest keeps the batter that it was.'
          : 'The additions give way to the base that you trust.'
      }}
    </p>
    <p v-if="written" class="row">
      <el-button @click="bench.holdTo('as_written')">Take it as it is in the bowl now</el-button>
      <el-button @click="findBehind">The plain base behind this</el-button>
    </p>
    <p v-if="bench.doc?.base.source_text" class="row"><SourceText :id="bench.doc.base.source_text" /></p>
    <div v-if="behind" class="well behind">
      <p>{{ amounts(behind) }}</p>
      <el-button class="go" @click="keepBehind">Save it as a base</el-button>
    </div>
    <p v-if="trouble" class="trouble" role="alert"><i class="sign high" />{{ trouble }}</p>
    <p v-if="pulled" class="row"><span>Some gauges are pulled away from it.</span><el-button @click="letGo">Back to where they were</el-button></p>
    <el-checkbox-group v-model="held" class="holds" aria-label="What must match">
      <el-checkbox v-for="h in holds" :key="h.value" :value="h.value"
        ><b>{{ h.label }}</b> <span>{{ written ? h.does.replace('the base', 'the recipe') : h.does }}</span></el-checkbox
      >
    </el-checkbox-group>
    <p class="row">
      <span id="sugar-by">Sugar is matched by</span>
      <el-radio-group v-model="sugarBy" class="pick" aria-labelledby="sugar-by">
        <el-radio-button value="sweetness">taste</el-radio-button><el-radio-button value="total_sugars">all sugars</el-radio-button>
      </el-radio-group>
    </p>
    <p v-for="f in floors" :key="f.role" class="row">
      <span>{{ f.says }}</span><el-switch
        :model-value="!low.includes(f.role)"
        :aria-label="f.says"
        @update:model-value="keepFloor(f.role, $event as boolean)" />
    </p>
  </el-dialog>
</template>

<style scoped>
.holds {
  display: grid;
  grid-template-columns: 1fr;
}
.holds .el-checkbox {
  min-height: var(--touch);
  margin: 0;
}
.holds span {
  color: var(--ink-2);
}
.muted {
  margin: var(--s2) 0;
  color: var(--ink-2);
}
.behind {
  display: grid;
  gap: var(--s2);
  justify-items: start;
  padding: var(--s3);
}
.trouble {
  color: var(--beet);
}
.row {
  flex-wrap: wrap;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s3);
  min-height: var(--touch);
  margin-top: var(--s2);
}
</style>
