<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { say } from '@/parts/say'
import { useBench } from '@/bench/bench'
import Icon from '@/parts/Icon.vue'
import { useAskedBy } from '@/parts/askedBy'
import { focusNear } from '@/parts/focus'
import { sayPutAside } from '@/parts/undo'
import ArchiveDialog from './ArchiveDialog.vue'
import BaseCard from './BaseCard.vue'
import BaseEditor from './BaseEditor.vue'
import CompareDialog from './CompareDialog.vue'
import ReaderDialog from './ReaderDialog.vue'
import { useBases, type Shelved } from './bases'
import { styles } from './words'

const bases = useBases()
const bench = useBench()
const route = useRoute()
const router = useRouter()
onMounted(() => bases.load())
const readerOpen = ref(false)
useAskedBy('read', readerOpen) // by whoever has a recipe to paste
const archiveOpen = ref(false)
const editorOpen = ref(false)
const edited = ref<Shelved>()
const ticked = ref<string[]>([])
const compareOpen = ref(false)
const pair = computed(() => ticked.value.map((id) => bases.shelf.find((b) => b.id === id)))

const school = ref('all')
const schools = computed(() => [
  { value: 'all', label: 'every school' },
  ...Object.entries(styles)
    .filter(([s]) => bases.shelf.some((b) => b.document.style === s))
    .map(([value, label]) => ({ value, label })),
])
const shown = computed(() => bases.shelf.filter((b) => school.value === 'all' || b.document.style === school.value))

function edit(b?: Shelved) {
  edited.value = b
  editorOpen.value = true
}
function tick(id: string, on: boolean) {
  ticked.value = on ? [...ticked.value.slice(-1), id] : ticked.value.filter((x) => x !== id)
}
async function attempt(f: () => Promise<unknown>) {
  try {
    await f()
  } catch (e) {
    say({ message: (e as Error).message, duration: 6000, showClose: true })
  }
}
const toBench = (b: Shelved) =>
  attempt(async () => {
    await bench.begin(b)
    await router.push('/')
  })
/** The base that the address asks for comes into sight. */
watch(
  [() => route.query.base, () => bases.shelf],
  async ([id]) => {
    if (typeof id !== 'string') return
    school.value = 'all'
    await nextTick()
    document.querySelector(`[data-base-id="${CSS.escape(id)}"]`)?.scrollIntoView({ block: 'center' })
  },
  { immediate: true },
)
const putAside = (b: Shelved) =>
  attempt(async () => {
    const at = shown.value.findIndex((x) => x.id === b.id)
    const bringBack = await bases.remove(b.id)
    void focusNear('.cards .acts .el-button:first-child', at, '.bases .bar .go')
    ticked.value = ticked.value.filter((x) => x !== b.id)
    sayPutAside(`${b.document.name} is put aside.`, bringBack)
  })
const starter = () =>
  attempt(async () => {
    const n = await bases.addStarter()
    say(n ? `${n} starter bases are among yours now.` : 'They are all among yours already.')
  })
</script>

<template>
  <main id="work" tabindex="-1" class="bases">
    <header class="bar area-bar">
      <h1>Bases</h1>
      <p class="muted">Which batter do I start from?</p>
      <el-select v-model="school" class="school" aria-label="School"
        ><el-option v-for="s in schools" :key="s.value" :value="s.value" :label="s.label"
      /></el-select>
      <el-button v-if="ticked.length" :disabled="ticked.length < 2" @click="compareOpen = true">{{
        ticked.length < 2 ? 'Tick one more' : 'Compare the two'
      }}</el-button>
      <el-button @click="starter">Starter bases</el-button>
      <el-button @click="archiveOpen = true">Import</el-button>
      <a class="el-button" href="/api/v1/archive" download="kitchen.json">Export all</a>
      <el-button @click="edit()"><Icon name="plus" />New</el-button>
      <el-button class="go" @click="readerOpen = true">Paste a recipe</el-button>
    </header>
    <p v-if="bases.trouble" class="panel trouble" role="alert">
      <i class="sign high" />{{ bases.trouble }} <el-button @click="bases.load">Try again</el-button>
    </p>
    <ul v-if="bases.shelf.length" class="cards">
      <BaseCard
        v-for="b in shown"
        :key="b.id"
        :base="b"
        :ticked="ticked.includes(b.id)"
        :asked="b.id === route.query.base"
        @tick="tick(b.id, $event)"
        @bench="toBench(b)"
        @change="edit(b)"
        @aside="putAside(b)" />
    </ul>
    <section v-else-if="bases.loaded" class="panel empty">
      <p>No base yet. Paste a recipe that you trust, or begin with the starter bases.</p>
      <el-button class="go" @click="starter">Begin with the starter bases</el-button>
    </section>
    <p v-else class="panel empty">Opening the bases</p>
    <ReaderDialog v-model="readerOpen" />
    <BaseEditor v-model="editorOpen" :from="edited" />
    <CompareDialog v-model="compareOpen" :a="pair[0]" :b="pair[1]" />
    <ArchiveDialog v-model="archiveOpen" />
  </main>
</template>

<style scoped>
.bases {
  position: relative;
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow: auto;
  padding: 0 var(--s3) var(--s3) 0;
}
.bar {
  flex-wrap: wrap;
  padding: var(--s2) 0 var(--s2) var(--s1);
  position: sticky;
  top: 0;
  background: var(--morning);
  z-index: 2;
}
.school {
  width: 150px;
}
.cards {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(330px, 100%), 1fr));
  gap: 10px;
}
.empty,
.trouble {
  padding: var(--s4);
  display: flex;
  gap: var(--s3);
  align-items: center;
  flex-wrap: wrap;
}
@media (max-width: 900px) {
  .bases {
    padding: 0 var(--s3) var(--s3);
  }
  .bar {
    position: static;
  }
}
</style>
