<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, got, said, type Schemas } from '@/api/client'
import { deliver, onLanded, putAside } from '@/away/outbox'
import { forms } from '@/bench/choices'
import Icon from '@/parts/Icon.vue'
import { say } from '@/parts/say'
import { sayPutAside } from '@/parts/undo'

/** What is in the freezer, what is used first first; its labels, and how it is made hot again. */
type Pack = Schemas['PackListed']
const packs = ref<Pack[]>()
const printer = ref('')
const trouble = ref('')
async function load() {
  trouble.value = ''
  try {
    const list = await got(api.GET('/packs'))
    packs.value = list.items
    printer.value = list.printer
    all.value = list
  } catch (e) {
    trouble.value = said(e)
  }
}
void load()
onLanded((l) => l.path.startsWith('/packs/') && void load())

const inside = computed(() => packs.value?.filter((p) => p.state !== 'used') ?? [])
const used = computed(() => packs.value?.filter((p) => p.state === 'used') ?? [])
const all = ref({ packs: 0, pieces: 0 })
const opened = ref<Pack>()
const isOpen = computed({ get: () => !!opened.value, set: (v) => !v && (opened.value = undefined) })
const named = (p: Pack, n: number) => {
  const f = forms.find((x) => x.value === p.document.form)
  return `${n} ${(n === 1 ? f?.label.toLowerCase() : f?.many) ?? 'pieces'}`
}
const day = (d: string) => new Date(`${d}T12:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })

const busy = ref('')
async function leave(p: Pack, left: number) {
  busy.value = p.id
  try {
    await deliver({
      what: `${p.document.name}: ${left} left`,
      method: 'PUT',
      path: `/packs/${p.id}`,
      revision: p.revision,
      body: { ...p.document, left },
    })
    await load()
  } catch (e) {
    say(said(e))
    await load()
  } finally {
    busy.value = ''
  }
}
async function aside(p: Pack) {
  try {
    await putAside(`/packs/${p.id}`, p.document.name)
    await load()
    sayPutAside(`${p.document.name} is put aside.`, async () => {
      await got(api.POST('/packs/{id}/restore', { params: { path: { id: p.id } } }))
      await load()
    })
  } catch (e) {
    say(said(e))
  }
}
async function print(p: Pack) {
  busy.value = p.id
  try {
    const { files } = await got(api.POST('/packs/{id}/print', { params: { path: { id: p.id } } }))
    say(`The label is printed: ${files.map((f) => f.split('/').at(-1)).join(' and ')}`)
  } catch (e) {
    say(said(e))
  } finally {
    busy.value = ''
  }
}
const labelOf = (p: Pack, as: 'png' | 'pdf') => `/api/v1/packs/${p.id}/label?as=${as}`
</script>

<template>
  <main id="work" tabindex="-1" class="freezer">
    <header class="area-bar">
      <h1>Freezer</h1>
      <p class="muted">
        {{ packs ? `${all.packs} ${all.packs === 1 ? 'pack' : 'packs'}, ${all.pieces} ${all.pieces === 1 ? 'piece' : 'pieces'}` : '' }}
      </p>
      <router-link class="el-button" to="/griddle"
        ><span><Icon name="griddle" :size="18" />To the griddle</span></router-link
      >
    </header>
    <section class="panel shelf" aria-label="Packs">
      <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }} <el-button @click="load">Try again</el-button></p>
      <p v-else-if="!packs">Looking into the freezer</p>
      <div v-else-if="!inside.length" class="none">
        <p><b>Nothing is in the freezer.</b></p>
        <p class="muted">On the griddle, what waits in the oven can be frozen flat; after an hour it is bagged, and every pack gets its label.</p>
      </div>
      <ul class="rows">
        <li v-for="p in inside" :key="p.id" class="well pack" :class="p.state" :data-pack="p.document.name">
          <template v-if="p.trouble">
            <span class="what"
              ><b>{{ p.document.name || 'A pack that cannot be read' }}</b
              ><small>{{ p.trouble }}</small></span
            >
          </template>
          <template v-else>
            <b class="left">{{ p.document.left }}</b>
            <span class="what"
              ><b>{{ p.document.name }}</b>
              <span><i v-if="p.state !== 'fine'" class="sign high" /> use by {{ day(p.document.use_by) }}: {{ p.says }}</span
              ><small
                >{{ p.document.allergen_text
                }}<template v-if="p.document.carried?.length">. The same plate had {{ p.document.carried.join(', ') }} on it before</template></small
              ></span
            >
            <el-button :loading="busy === p.id" data-use @click="leave(p, p.document.left - 1)">Use 1</el-button>
            <el-button v-if="p.document.left > 1" @click="leave(p, 0)">Use all</el-button>
            <el-button data-label @click="opened = p"><Icon name="print" :size="18" />Label, reheating</el-button>
          </template>
          <el-button class="ghost" :aria-label="`Put ${p.document.name} aside`" title="Put aside" @click="aside(p)"><Icon name="bin" /></el-button>
        </li>
      </ul>
      <template v-if="used.length">
        <h2>Used up</h2>
        <ul class="rows">
          <li v-for="p in used" :key="p.id" class="well">
            <span class="what"
              ><b>{{ p.document.name }}</b
              ><small>{{ named(p, p.document.pieces) }}, made {{ day(p.document.made_on) }}</small></span
            >
            <el-button @click="leave(p, p.document.pieces)">It is still there</el-button>
          </li>
        </ul>
      </template>
    </section>
    <el-dialog v-model="isOpen" :title="opened?.document.name ?? ''" width="min(720px, 96vw)" append-to-body>
      <div v-if="opened" class="open">
        <img :src="labelOf(opened, 'png')" :alt="`The label of ${opened.document.name}: ${opened.document.allergen_text}`" />
        <div class="how">
          <h3>To the table</h3>
          <ol>
            <li v-for="r in opened.document.reheat" :key="r">{{ r }}</li>
          </ol>
          <p class="muted">Follow your local code. The middle by a probe outranks every minute.</p>
          <p class="acts">
            <el-button v-if="printer" class="go" data-print :loading="busy === opened.id" @click="print(opened)"
              ><Icon name="print" />Print the label</el-button
            >
            <a class="el-button" :href="labelOf(opened, 'pdf')" target="_blank" rel="noopener">As PDF</a>
          </p>
          <p v-if="printer" class="muted where">The label printer of this kitchen is a folder: {{ printer }}</p>
        </div>
      </div>
    </el-dialog>
  </main>
</template>

<style scoped>
.freezer {
  display: flex;
  flex-direction: column;
  gap: var(--s2);
  min-width: 0;
  min-height: 0;
  padding: 0 var(--s3) var(--s3) 0;
}
.shelf {
  flex: 1;
  padding: var(--s3) var(--s4);
  overflow-y: auto;
}
.none {
  display: grid;
  gap: var(--s2);
  padding: var(--s4);
  border: 2px dashed var(--edge);
  border-radius: var(--r-well);
}
.pack {
  flex-wrap: wrap;
}
.pack .what {
  flex: 1 1 260px;
}
.pack .what > b {
  font-size: var(--t-lead);
}
.soon {
  background: var(--yolk-wash);
}
.over {
  background: var(--beet-wash);
}
.left {
  min-width: 52px;
  font-size: var(--t-arm);
  line-height: 1;
  text-align: center;
}
h2 {
  margin: var(--s4) 0 var(--s2);
  font-size: var(--t-lead);
}
.open {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4);
}
.open img {
  width: min(300px, 100%);
  border: 2px solid var(--edge);
  border-radius: var(--s2);
  background: #fff;
}
.how {
  flex: 1 1 260px;
  display: grid;
  gap: var(--s2);
  align-content: start;
}
.how ol {
  margin: 0;
  padding-left: 20px;
  display: grid;
  gap: var(--s1);
}
.where {
  overflow-wrap: anywhere;
  font-size: var(--t-mini);
}
.how a {
  text-decoration: none;
}
@media (max-width: 900px) {
  .freezer {
    padding: 0 var(--s2) var(--s2);
  }
}
</style>
