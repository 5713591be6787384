<script setup lang="ts">
import { computed, ref } from 'vue'
import { deliver, waits } from '@/away/outbox'
import { api, got, said, type ListItem, type Schemas, type Variation } from '@/api/client'
import { addressOf } from '@/parts/address'
import AllergenLine from '@/parts/AllergenLine.vue'
import { onStep } from '@/parts/figures'
import Icon from '@/parts/Icon.vue'
import PortionDisc from '@/parts/PortionDisc.vue'
import { say } from '@/parts/say'
import { offerUndo } from '@/parts/undo'
import type { Sauce } from './sauces'
import { places } from './words'

/** The variations that a sauce goes on, each serving judged with it. */
const props = defineProps<{
  id: string
  revision: number
  sauce: Sauce
  colour: string
  each: number
  place: Schemas['Place']
  uses?: Schemas['SauceUse'][]
}>()
const emit = defineEmits<{ changed: [] }>()
const picking = ref(false)
const all = ref<ListItem[]>()
const trouble = ref('')
const busy = ref('')
const free = computed(() => all.value?.filter((v) => !props.uses?.some((u) => u.id === v.id)))

async function pick() {
  picking.value = true
  trouble.value = ''
  try {
    all.value = (await got(api.GET('/variations', { params: { query: { limit: 200 } } }))).items
  } catch (e) {
    trouble.value = said(e)
  }
}
const isIt = (p: Schemas['Part']) => p.sauce_ref?.id === props.id
/** Changes the parts of a saved variation, and offers to take that back. */
async function change(id: string, name: string, parts: (now: Schemas['Part'][]) => Schemas['Part'][], says: string) {
  busy.value = id
  try {
    const was = await got(api.GET('/variations/{id}', { params: { path: { id } } }))
    const save = (document: Variation, revision: number) =>
      deliver<Schemas['SavedVariation']>({ what: `“${name}”`, method: 'PUT', path: `/variations/${id}`, revision, body: document })
    const now = parts(was.document.parts ?? [])
    const document = { ...was.document, parts: now }
    if (!now.length) delete (document as Partial<Variation>).parts
    const sent = await save(document, was.revision)
    emit('changed')
    if (!sent.landed) return say(waits(`“${name}”`))
    offerUndo(says, async () => {
      await save(was.document, sent.answer.revision)
      emit('changed')
    })
  } catch (e) {
    say(said(e))
  } finally {
    busy.value = ''
  }
}
const part = (kind: Schemas['Place'], each: number): Schemas['Part'] => ({
  kind,
  text: `${props.sauce.name}, ${onStep(each, 1)} g`,
  each_g: each,
  sauce: props.sauce,
  sauce_ref: { id: props.id, revision: props.revision },
})
async function put(v: ListItem) {
  picking.value = false
  await change(v.id, v.name, (now) => [...now, part(props.place, props.each)], `${props.sauce.name} goes on ${v.name}.`)
}
const off = (u: Schemas['SauceUse']) => change(u.id, u.name, (now) => now.filter((p) => !isIt(p)), `${props.sauce.name} is off ${u.name}.`)
const renew = (u: Schemas['SauceUse']) =>
  change(u.id, u.name, (now) => now.map((p) => (isIt(p) ? part(p.kind, p.each_g ?? props.each) : p)), `${u.name} has the sauce as it is now.`)
</script>

<template>
  <section class="panel goes" aria-label="Goes on">
    <header><h2>Goes on</h2></header>
    <ul class="uses">
      <li v-for="u in uses" :key="u.id" :data-use="u.name">
        <div class="one">
          <PortionDisc class="disc" :diameter-mm="u.wide_mm" :colour="u.colour" :on="u.on_mm ? { wideMm: u.on_mm, colour } : undefined" />
          <div class="what">
            <router-link :to="addressOf(u.id)">{{ u.name }}</router-link>
            <p v-if="u.trouble" class="trouble">{{ u.trouble }}</p>
            <p v-else class="muted">{{ places[u.place] }}, {{ onStep(u.each_g, 1) }} g. {{ u.says }}</p>
            <AllergenLine :text="u.allergen_text" />
          </div>
        </div>
        <div class="acts">
          <el-button v-if="u.older" :loading="busy === u.id" @click="renew(u)">Take over the change</el-button>
          <el-button class="ghost" :loading="busy === u.id" :aria-label="`Take off ${u.name}`" @click="off(u)">Take off</el-button>
        </div>
      </li>
    </ul>
    <p v-if="uses && !uses.length" class="muted none">It goes on nothing yet.</p>
    <el-button class="dashed" data-put-on @click="pick"
      ><Icon name="plus" />{{ uses?.length ? 'Put it on another' : 'Put it on a variation' }}</el-button
    >
    <el-dialog v-model="picking" :title="`${sauce.name} goes on`" width="min(520px, 96vw)" append-to-body>
      <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
      <p v-else-if="!all">Looking for variations</p>
      <p v-else-if="!free?.length" class="muted">There is no other variation.</p>
      <ul class="rows">
        <li v-for="v in free" :key="v.id" class="well" :data-variation="v.name">
          <span class="what"
            ><b>{{ v.name }}</b
            ><small>{{ v.verdict }}</small></span
          ><el-button @click="put(v)">Put it on</el-button>
        </li>
      </ul>
    </el-dialog>
  </section>
</template>

<style scoped>
.goes {
  display: grid;
  align-content: start;
  gap: var(--s2);
  padding-bottom: var(--s3);
}
.uses {
  list-style: none;
  margin: 0;
  padding: 0 var(--s4);
}
.uses > li {
  display: grid;
  gap: var(--s1);
  padding: var(--s2) 0;
}
.uses > li + li {
  border-top: 1.5px solid var(--hair);
}
.one {
  display: flex;
  gap: var(--s3);
  align-items: flex-start;
}
.disc {
  flex: none;
}
.what {
  display: grid;
  gap: 2px;
  min-width: 0;
  overflow-wrap: anywhere;
}
.what > a {
  font-weight: 700;
  min-height: 24px;
}
.what p {
  font-size: 14px;
}
.trouble {
  color: var(--beet);
}
.none {
  padding: 0 var(--s4);
}
.dashed {
  margin: 0 var(--s4);
}
</style>
