<script setup lang="ts">
import AmountField from '@/parts/AmountField.vue'
import { computed, ref, watch } from 'vue'
import { say } from '@/parts/say'
import { faultsOf, said } from '@/api/client'
import { ask } from '@/parts/ask'
import TwoSides from '@/parts/TwoSides.vue'
import { useAsked } from '@/parts/useAsked'
import { copyOf, useSaved } from '@/parts/useSaved'
import { waits } from '@/away/outbox'
import { forms } from '@/bench/choices'
import SourceText from '@/parts/SourceText.vue'
import BesideList from '@/parts/BesideList.vue'
import Icon from '@/parts/Icon.vue'
import BaseHistory from './BaseHistory.vue'
import FingerprintBars from './FingerprintBars.vue'
import LineRows from './LineRows.vue'
import { asVariation, useBases, type Base, type Shelved } from './bases'
import { styles } from './words'

/** A base with its lines, its school and what they make of it. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ from?: Shelved; fresh?: Base }>()
const bases = useBases()
const base = ref<Base>()
const question = useAsked(() => (base.value ? ask('/fingerprints', { ...copyOf(base.value), name: base.value.name || 'Base' }) : undefined), {
  afterMs: 150,
})
const print = question.answer
const notKept = ref('') // why it could not be saved
const trouble = computed(() => notKept.value || question.trouble.value || Object.values(question.faults.value)[0] || '')
const faults = ref<Record<string, string>>({})
const busy = ref(false)
const portions = ref<number>()
const kept = useSaved<Base>({ send: bases.put })

watch(open, (o) => {
  if (!o) return
  const from = props.from?.document ?? props.fresh
  base.value = from
    ? copyOf(from)
    : {
        format: 'upbeat-ladle/base',
        version: 1,
        name: '',
        form: 'pancake',
        style: 'milk',
        lines: [
          { ingredient: 'plain_flour', amount: 250, unit: 'g' },
          { ingredient: 'milk_whole', amount: 390, unit: 'g' },
          { ingredient: 'egg_whole', amount: 2, unit: 'each' },
        ],
      }
  notKept.value = ''
  faults.value = {}
})
watch(base, () => void question.soon(), { deep: true })
const changed = computed(() => JSON.stringify(base.value) !== JSON.stringify(props.from?.document))

const bowlChoices = [
  { value: '', label: 'usual' },
  { value: 'two', label: 'two, dry and wet' },
  { value: 'one_wet_first', label: 'one, wet first' },
  { value: 'one_dry_first', label: 'one, dry first' },
] as const
const school = (key: 'lumps' | 'eggs' | 'pan_fat' | 'dairy', v: string) => {
  if (!base.value) return
  base.value.school = { ...base.value.school, [key]: v || undefined }
}
async function standIns(line: number) {
  const of = copyOf(base.value!)
  return (await ask('/swaps', { variation: asVariation(of), line: of.lines[line]?.id ?? `b${line + 1}` })).items
}
async function scale() {
  if (!base.value || !portions.value) return
  try {
    const variation = asVariation({ ...copyOf(base.value), name: base.value.name || 'Base' })
    const scaled = await ask('/scalings', { variation, flour_g: portions.value })
    base.value.lines = scaled.variation.base.lines
    if (scaled.said.length) say({ message: scaled.said.join(' '), duration: 6000 })
  } catch (e) {
    notKept.value = said(e)
  }
}
async function keep() {
  if (!base.value) return
  busy.value = true
  notKept.value = ''
  faults.value = {}
  try {
    const document = copyOf(base.value)
    const state = props.from ? await kept.keep(props.from, document) : (await bases.create(document)).landed ? 'saved' : 'offline'
    if (state !== 'conflict') {
      open.value = false
      say({ message: state === 'saved' ? `“${document.name}” is among your bases.` : waits(`“${document.name}”`), duration: 4000 })
    }
  } catch (e) {
    faults.value = Object.fromEntries(Object.entries(faultsOf(e)).map(([k, v]) => [`/${k}`, v]))
    notKept.value = said(e)
  }
  busy.value = false
}
/** Another tablet changed it while it was changed here. */
async function settle(side: 'mine' | 'theirs') {
  kept.settle(side)
  if (side === 'theirs') base.value = copyOf(kept.doc.value)
  await kept.save()
  open.value = false
}
</script>

<template>
  <el-dialog v-model="open" :title="from ? from.document.name : 'A new base'" width="min(1080px, 96vw)" top="4vh" append-to-body>
    <TwoSides past :conflict="kept.conflict.value" @settle="settle" />
    <form v-if="open && base" novalidate class="editor" @submit.prevent="keep">
      <div class="lines">
        <div class="head">
          <div class="wide">
            <label for="base-name">Name</label><el-input id="base-name" v-model="base.name" maxlength="200" />
            <p v-if="faults['/name']" class="fault" role="alert">{{ faults['/name'] }}</p>
          </div>
          <div>
            <label for="base-form">For</label
            ><el-select id="base-form" v-model="base.form" aria-label="Form"
              ><el-option v-for="f in forms" :key="f.value" :value="f.value" :label="f.label"
            /></el-select>
          </div>
          <div>
            <label for="base-style">School</label
            ><el-select id="base-style" v-model="base.style" clearable aria-label="School"
              ><el-option v-for="(l, s) in styles" :key="s" :value="s" :label="l"
            /></el-select>
          </div>
        </div>
        <LineRows v-model="base.lines" :faults="faults" :stand-ins="standIns" />
        <BesideList v-if="base.parts?.length" :parts="base.parts" @off="base.parts?.splice($event, 1)" />
        <div class="head">
          <div>
            <label for="base-lumps">Stirred</label
            ><el-input
              id="base-lumps"
              :model-value="base.school?.lumps ?? ''"
              placeholder="lumpy, or smooth"
              maxlength="80"
              @update:model-value="school('lumps', $event)" />
          </div>
          <div>
            <label for="base-rest">Rests, min</label
            ><AmountField
              id="base-rest"
              label="Rests, min"
              :model-value="base.school?.rest_min"
              placeholder="usual"
              @update:model-value="base.school = { ...base.school, rest_min: $event ?? undefined }" />
          </div>
          <div>
            <label for="base-eggs">Eggs</label
            ><el-input
              id="base-eggs"
              :model-value="base.school?.eggs ?? ''"
              placeholder="whole"
              maxlength="80"
              @update:model-value="school('eggs', $event)" />
          </div>
          <div>
            <label for="base-bowls">Bowls</label
            ><el-select
              id="base-bowls"
              :model-value="base.school?.bowls ?? ''"
              aria-label="Bowls"
              @update:model-value="base.school = { ...base.school, bowls: $event || undefined }"
              ><el-option v-for="b in bowlChoices" :key="b.value" :value="b.value" :label="b.label"
            /></el-select>
          </div>
          <div class="wide">
            <label for="base-note">Where it is from</label><el-input id="base-note" v-model="base.source_note" maxlength="500" /><SourceText
              v-if="base.source_text"
              :id="base.source_text" />
          </div>
        </div>
      </div>
      <aside class="well print">
        <el-button class="go" native-type="submit" :loading="busy" :disabled="!!from && !changed"><Icon name="tick" />Save</el-button>
        <p v-if="trouble" class="fault" role="alert"><i class="sign high" />{{ trouble }}</p>
        <h3>
          Fingerprint <small v-if="print?.class" class="muted">{{ print.class }}</small>
        </h3>
        <FingerprintBars v-if="print" :print="print" />
        <p v-for="s in print?.sentences" :key="s" class="said">{{ s }}</p>
        <div class="scale">
          <label for="base-flour">Scale to flour, g</label
          ><AmountField
            id="base-flour"
            label="Scale to flour, g"
            unit="g"
            v-model="portions"
            :limits="{ low: 1, high: Infinity }"
            :placeholder="print?.flour_g.toFixed(0)" /><el-button :disabled="!portions" @click="scale"><Icon name="resize" />Scale</el-button>
        </div>
        <BaseHistory v-if="from" :base="from" @chosen="base = copyOf($event)" />
      </aside>
    </form>
  </el-dialog>
</template>

<style scoped>
.editor {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: var(--s4);
  align-items: start;
}
.lines {
  display: grid;
  gap: var(--s3);
}
.head {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: var(--s2) var(--s3);
}
.wide {
  grid-column: span 1;
}
.head .wide:last-child {
  grid-column: 1 / -1;
}
label {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
  padding-bottom: 2px;
}
.head .amount-field {
  width: 100%;
}
.print {
  padding: var(--s3);
  display: grid;
  gap: var(--s2);
}
.said {
  font-size: 14px;
}
.fault {
  color: var(--beet);
  font-size: var(--t-mini);
  display: flex;
  gap: var(--s2);
}
.scale {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
.scale label {
  padding: 0;
}
.scale .amount-field {
  width: 90px;
}
@media (max-width: 820px) {
  .editor {
    grid-template-columns: minmax(0, 1fr);
  }
  .head {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
