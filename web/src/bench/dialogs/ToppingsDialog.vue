<script setup lang="ts">
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
const usual = ref<Topping[]>([])
const trouble = ref('')
watch(
  shown,
  async (open) => {
    if (!open || usual.value.length) return
    trouble.value = ''
    try {
      usual.value = (await got(api.POST('/toppings', { body: {} }))).items
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
const others = computed(() => (bench.doc?.parts ?? []).filter((p) => p.kind !== 'pan' && !usual.value.some((t) => isOf(p, t.ingredient))))

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
.usual {
  max-height: 52vh;
  overflow-y: auto;
}
.usual > li {
  flex-wrap: wrap;
}
.usual .what {
  flex: 1 1 200px;
}
.much {
  min-width: 48px;
  text-align: center;
}
h3 {
  margin-top: var(--s3);
}
</style>
