<script setup lang="ts">
import { ask } from '@/parts/ask'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { isLocal } from '@/away/drafts'
import { api, got, newKey, said, type ListItem, type Variation } from '@/api/client'
import { useBench } from '@/bench/bench'
import { useAsked } from '@/parts/useAsked'
import { sheetOf } from '@/parts/address'
import AllergenLine from '@/parts/AllergenLine.vue'
import { onStep } from '@/parts/figures'

/** What has to be out before the work begins: for this bowl, or for several. */
const open = defineModel<boolean>({ required: true })
const bench = useBench()
const router = useRouter()
const others = ref<ListItem[]>([])
const chosen = ref<string[]>([])
const question = useAsked(
  () => {
    const mine = bench.asked()
    return open.value && mine ? listFor(mine) : undefined
  },
  { afterMs: 0 },
)
const list = question.answer
const notBegun = ref('')
const trouble = computed(() => notBegun.value || question.trouble.value || Object.values(question.faults.value)[0] || '')
async function listFor(mine: Variation) {
  const more = chosen.value.map((id) => got(api.GET('/variations/{id}', { params: { path: { id } } })))
  return ask('/pulling', { variations: [mine, ...(await Promise.all(more)).map((s) => s.document as Variation)] })
}

watch(
  open,
  async (is) => {
    if (!is) return
    chosen.value = []
    try {
      others.value = (await got(api.GET('/variations', { params: { query: { limit: 200 } } }))).items.filter((v) => v.id !== bench.id)
    } catch {
      others.value = [] // then the list is for this one
    }
  },
  { immediate: true },
)
const pull = () => void question.now()
/** Several of one base: weighed and mixed once, and split into their bowls. */
const splitting = ref(false)
async function split() {
  const mine = bench.asked()
  if (!mine || splitting.value) return
  splitting.value = true
  notBegun.value = ''
  try {
    const saved = await Promise.all(chosen.value.map((id) => got(api.GET('/variations/{id}', { params: { path: { id } } }))))
    const from = bench.id && !isLocal(bench.id) ? { from: { id: bench.id, revision: bench.revision } } : {}
    const bowls = [{ variation: mine, ...from }, ...saved.map((s) => ({ variation: s.document, from: { id: s.id, revision: s.revision } }))]
    const begun = await got(api.POST('/batches-split', { params: { header: { 'Idempotency-Key': newKey() } }, body: { bowls } }))
    open.value = false
    await router.push(sheetOf(begun.items[0]!.id))
  } catch (e) {
    notBegun.value = said(e)
  } finally {
    splitting.value = false
  }
}
watch([open, chosen], () => void pull(), { immediate: true })
const several = computed(() => (list.value?.bowls.length ?? 0) > 1)
</script>

<template>
  <el-dialog v-model="open" title="What has to be out" width="min(720px, 96vw)" append-to-body class="pulling">
    <label class="more"
      >Together with
      <el-select v-model="chosen" multiple filterable placeholder="this one alone" aria-label="Other variations">
        <el-option v-for="v in others" :key="v.id" :value="v.id" :label="v.name" />
      </el-select>
    </label>
    <p v-if="chosen.length" class="together">
      <el-button class="go" :loading="splitting" data-split @click="split">Make them from one batter</el-button
      ><small>Of one base: weighed and mixed once, as dry as the driest bowl needs, then split; each bowl gets back what it lacks.</small>
    </p>
    <p v-if="trouble" role="alert" class="trouble"><i class="sign high" /> {{ trouble }} <el-button @click="pull">Try again</el-button></p>
    <p v-else-if="!list">Adding it up</p>
    <template v-if="list">
      <table>
        <thead>
          <tr>
            <th scope="col">Ingredient</th>
            <th scope="col">weigh out</th>
            <th scope="col">that is</th>
            <th scope="col">there are</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in list.lines" :key="l.ingredient" :data-pull="l.ingredient">
            <th scope="row">
              {{ l.label }}<small v-if="several && l.for.length < list.bowls.length">for {{ l.for.join(', ') }}</small>
            </th>
            <td>
              <b>{{ onStep(l.grams, l.decimals) }} g</b>
            </td>
            <td>
              <template v-if="l.pieces">{{ l.pieces }}</template><small v-if="l.bought_g">{{ l.bought_g.toFixed(0) }} g as bought</small>
            </td>
            <td :class="{ short: l.short_g }">
              <template v-if="l.have_g !== undefined"
                >{{ l.have_g.toFixed(0) }} g<small v-if="l.short_g"><i class="sign high" /> {{ l.short_g }} g short</small></template
              ><span v-else class="muted">not counted</span>
            </td>
          </tr>
        </tbody>
      </table>
      <section class="tools">
        <h3>Tools</h3>
        <ul>
          <li v-for="t in list.tools" :key="t">{{ t }}</li>
        </ul>
      </section>
      <section v-if="list.beside.length">
        <h3>For the pan and the table</h3>
        <p>{{ list.beside.join('; ') }}</p>
      </section>
      <p v-for="b in list.bowls" :key="b.name" class="bowl">
        <b>{{ b.name }}</b> makes {{ b.count }}
        <AllergenLine :text="b.allergen_text" />
      </p>
    </template>
  </el-dialog>
</template>

<style scoped>
.more {
  display: grid;
  gap: 4px;
  padding-bottom: var(--s3);
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 6px var(--s2) 6px 0;
  border-bottom: 1.5px solid var(--hair);
  overflow-wrap: anywhere;
}
thead th {
  font-weight: 500;
  color: var(--ink-2);
  font-size: var(--t-mini);
}
tbody b {
  font-size: var(--t-lead);
  white-space: nowrap;
}
small {
  display: block;
  font-size: var(--t-mini);
  font-weight: 500;
  color: var(--ink-2);
}
.short,
.short small {
  color: var(--beet);
}
h3 {
  padding-top: var(--s4);
}
.tools ul {
  columns: 2 220px;
  margin: 0;
  padding: var(--s1) 0 0 20px;
}
.bowl {
  padding-top: var(--s3);
}
.together {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
  padding-bottom: var(--s3);
}
.together small {
  flex: 1 1 240px;
}
.trouble {
  display: flex;
  align-items: center;
  gap: var(--s2);
}
</style>
