<script setup lang="ts">
import { ask } from '@/parts/ask'
import { computed, ref, watch } from 'vue'
import { api, got, said, type Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'
import AllergenLine from '@/parts/AllergenLine.vue'
import { onStep } from '@/parts/figures'
import StepButton from '@/parts/StepButton.vue'

/** What goes on: one tap puts it on, and the serving is judged with it. */
const shown = defineModel<boolean>({ required: true })
const bench = useBench()
type Topping = Schemas['Topping']
type Part = Schemas['Part']
type Listed = Schemas['SauceListed']
const usual = ref<Topping[]>([])
const house = ref<Listed[]>([])
const trouble = ref('')
watch(
  shown,
  async (open) => {
    if (!open) return
    trouble.value = ''
    try {
      const [bought, ours] = await Promise.all([ask('/toppings', {}), got(api.GET('/sauces'))])
      usual.value = bought.items
      house.value = ours.items
    } catch (e) {
      trouble.value = said(e)
    }
  },
  { immediate: true },
)
const isOf = (p: Part, ingredient: string) => p.each_g !== undefined && p.lines?.length === 1 && p.lines[0]!.ingredient === ingredient
const on = (t: Topping) => bench.doc?.parts?.find((p) => isOf(p, t.ingredient))
const text = (t: Topping, g: number) => `${t.label}, ${t.says} of ${onStep(g, 1)} g`
/** Things that stand beside the batter and are none of these: told, and left as they are. */
const others = computed(() => (bench.doc?.parts ?? []).filter((p) => p.kind !== 'pan' && !p.sauce && !usual.value.some((t) => isOf(p, t.ingredient))))

/** A sauce of the house, as it is on this variation. */
const isHouse = (p: Part, id: string) => p.sauce_ref?.id === id
const houseOn = (s: Listed) => bench.doc?.parts?.find((p) => isHouse(p, s.id))
/** One that was put on and is not kept any more, or that came with a file. */
const strangers = computed(() => (bench.doc?.parts ?? []).filter((p) => p.sauce && !house.value.some((s) => isHouse(p, s.id))))
function setHouse(s: Listed, patch: { each?: number; kind?: Schemas['Place']; renew?: boolean } | null) {
  bench.change((d) => {
    const parts = [...(d.parts ?? [])]
    const at = parts.findIndex((p) => isHouse(p, s.id))
    if (patch === null) parts.splice(at, 1)
    else {
      const was = parts[at]
      const each = patch.each ?? was?.each_g ?? s.serving_g
      const now = !was || patch.renew
      const part: Part = {
        kind: patch.kind ?? was?.kind ?? s.place ?? 'top',
        text: `${s.document.name}, ${onStep(each, 1)} g`,
        each_g: each,
        sauce: now ? s.document : was.sauce,
        sauce_ref: now ? { id: s.id, revision: s.revision } : was.sauce_ref,
      }
      if (at < 0) parts.push(part)
      else parts[at] = part
    }
    if (parts.length) d.parts = parts
    else delete d.parts
  })
}
function takeOff(p: Part) {
  bench.change((d) => {
    const parts = (d.parts ?? []).filter((x) => JSON.stringify(x) !== JSON.stringify(p))
    if (parts.length) d.parts = parts
    else delete d.parts
  })
}
const housePlaces = [
  { value: 'top', label: 'on top' },
  { value: 'middle', label: 'inside' },
  { value: 'beside', label: 'beside' },
] as const

function set(t: Topping, grams: number) {
  bench.change((d) => {
    const rest = (d.parts ?? []).filter((p) => !isOf(p, t.ingredient))
    const at = (d.parts ?? []).findIndex((p) => isOf(p, t.ingredient))
    if (grams > 0) {
      const part: Part = { kind: t.kind, text: text(t, grams), lines: [{ ingredient: t.ingredient }], each_g: grams }
      rest.splice(at < 0 ? rest.length : at, 0, part)
    }
    if (rest.length) d.parts = rest
    else delete d.parts
  })
}
watch(shown, (open) => bench.include('nutrition', open), { immediate: true })
const energy = computed(() => bench.sheet?.nutrition_per_portion?.energy_kcal)
</script>

<template>
  <el-dialog v-model="shown" append-to-body title="What goes on" width="min(720px, 96vw)" class="toppings">
    <div class="served well" data-served aria-live="polite">
      <p class="lead">
        {{ bench.sheet?.served?.text ?? 'Nothing that counts goes on yet.' }}
        <template v-if="energy !== undefined"> {{ energy.toFixed(0) }} kcal a serving.</template>
      </p>
      <AllergenLine v-if="bench.sheet" :text="bench.sheet.allergen_text" />
    </div>
    <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
    <p v-else-if="!usual.length">Looking for what is usual</p>
    <h3 v-if="house.length || strangers.length">Of the house</h3>
    <p v-else-if="usual.length" class="muted">A sauce of your own is made in <router-link to="/sauces">Sauces</router-link>, and then stands here.</p>
    <ul class="rows">
      <li v-for="s in house" :key="s.id" class="well own" :class="{ here: houseOn(s) }" :data-house="s.document.name">
        <span class="what"
          ><b>{{ s.document.name }}</b
          ><small>{{ s.trouble ?? s.allergen_text }}</small></span
        >
        <template v-if="houseOn(s)">
          <el-radio-group
            :model-value="houseOn(s)!.kind"
            class="pick"
            :aria-label="`Where ${s.document.name} goes`"
            @update:model-value="setHouse(s, { kind: $event as Schemas['Place'] })">
            <el-radio-button v-for="h in housePlaces" :key="h.value" :value="h.value">{{ h.label }}</el-radio-button>
          </el-radio-group>
          <span class="acts">
            <StepButton
              icon="minus"
              :label="`Less ${s.document.name}`"
              :disabled="(houseOn(s)!.each_g ?? 0) <= s.step_g"
              @step="setHouse(s, { each: Math.max(s.step_g, (houseOn(s)!.each_g ?? 0) - s.step_g) })" />
            <b class="much">{{ onStep(houseOn(s)!.each_g ?? 0, 1) }} g</b>
            <StepButton
              icon="plus"
              :label="`More ${s.document.name}`"
              @step="setHouse(s, { each: Math.min(s.most_g, (houseOn(s)!.each_g ?? 0) + s.step_g) })" />
            <el-button v-if="houseOn(s)!.sauce_ref?.revision !== s.revision" @click="setHouse(s, { renew: true })">Take over its change</el-button>
            <el-button @click="setHouse(s, null)">Take off</el-button>
          </span>
        </template>
        <el-button v-else :disabled="!!s.trouble" @click="setHouse(s, {})">Put on</el-button>
      </li>
      <li v-for="p in strangers" :key="p.text" class="well own here">
        <span class="what"
          ><b>{{ p.text }}</b
          ><small>as it came; it is not among your sauces</small></span
        ><el-button @click="takeOff(p)">Take off</el-button>
      </li>
    </ul>
    <h3 v-if="usual.length">Bought, and tubs</h3>
    <ul class="rows usual">
      <li v-for="t in usual" :key="t.ingredient" class="well" :class="{ here: on(t) }" :data-topping="t.ingredient">
        <span class="what"
          ><b>{{ t.label }}</b
          ><small
            >{{ t.says }}, {{ onStep(t.each_g, 1) }} g<template v-if="t.allergens.length"> · contains {{ t.allergens.join(', ') }}</template
            ><template v-if="t.may_contain.length"> · some makes may carry {{ t.may_contain.join(', ') }}</template></small
          ></span
        >
        <span v-if="on(t)" class="acts">
          <StepButton
            icon="minus"
            :label="`Less ${t.label}`"
            :disabled="(on(t)!.each_g ?? 0) <= t.step_g"
            @step="set(t, Math.max(t.step_g, (on(t)!.each_g ?? 0) - t.step_g))" />
          <b class="much">{{ onStep(on(t)!.each_g ?? 0, 1) }} g</b>
          <StepButton icon="plus" :label="`More ${t.label}`" @step="set(t, Math.min(t.most_g, (on(t)!.each_g ?? 0) + t.step_g))" />
          <el-button @click="set(t, 0)">Take off</el-button>
        </span>
        <el-button v-else @click="set(t, t.each_g)">Put on</el-button>
      </li>
    </ul>
    <template v-if="others.length">
      <h3>Also beside the batter, as it was said</h3>
      <ul>
        <li v-for="p in others" :key="p.text">{{ p.text }}</li>
      </ul>
    </template>
    <p class="muted">
      Bought things by their usual makes: check every pack. What is on a portion counts in its nutrition, its cost and what has to be out.
    </p>
  </el-dialog>
</template>

<style scoped>
.served {
  display: grid;
  gap: var(--s1);
  margin-bottom: var(--s2);
  padding: var(--s2) var(--s3);
}
.lead {
  font-size: var(--t-lead);
}
.usual > li,
.own {
  flex-wrap: wrap;
}
.usual .what,
.own .what {
  flex: 1 1 200px;
}
.much {
  min-width: 48px;
  text-align: center;
}
h3 {
  margin: var(--s3) 0 var(--s2);
  font-size: var(--t-body);
}
</style>
