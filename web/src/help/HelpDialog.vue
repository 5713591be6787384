<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, got, said, type Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { letterKeys } from '@/parts/settings'
import { glossary } from './glossary'

const shown = defineModel<boolean>({ required: true })
defineProps<{ canTour: boolean }>()
const emit = defineEmits<{ tour: [] }>()
const part = ref<'words' | 'keys' | 'about'>('words')
const about = ref<Schemas['About']>()
const trouble = ref('')
watch(part, async (now) => {
  if (now !== 'about' || about.value) return
  try {
    about.value = await got(api.GET('/about'))
    trouble.value = ''
  } catch (e) {
    trouble.value = said(e)
  }
})
function tour() {
  shown.value = false
  emit('tour')
}
const keys: [string, string][] = [
  ['/', 'find an addition'],
  ['Ctrl+K', 'go anywhere: a variation, a base, an ingredient'],
  ['Ctrl+Z', 'undo'],
  ['Ctrl+Shift+Z', 'redo'],
  ['Enter', 'on the sheet: next, or the way out that touches least'],
  ['0', 'on the sheet: zero the scale'],
  ['T', 'on the sheet: type the weight in'],
  ['Space', 'on the griddle: what stands in the yellow card is done'],
  ['1 to 9', 'on the griddle: that place is poured, flipped or lifted; two digits from 10 on'],
  ['Z', 'on the griddle: take the last back'],
  ['?', 'help: a tour, the words, these keys'],
  ['Esc', 'back'],
  ['↑ ↓', 'the line before, the line after'],
  ['− +', 'less, more of the addition in hand; also [ ]; ten steps with Shift'],
  ['1 to 5', 'hold back liquid, build up flour, dry the addition, shared, leave it'],
  ['F', 'the next form'],
  ['G', 'grams or cups'],
  ['P', 'pin the row in hand'],
  ['H', 'the heat, and back to the list'],
  ['B', 'the plain base, for comparison'],
]
</script>

<template>
  <el-dialog v-model="shown" title="Help" width="min(620px, 96vw)" top="6vh" class="help">
    <div class="tour well">
      <p>
        <b>A tour of the bench, two minutes</b
        ><span>{{
          canTour ? 'It points at each part and says what it is for. Nothing is changed.' : 'Start a variation first: the tour walks over it.'
        }}</span>
      </p>
      <el-button class="go" :disabled="!canTour" @click="tour"><Icon name="bench" />Show me round</el-button>
    </div>
    <el-radio-group v-model="part" class="pick" aria-label="Help on">
      <el-radio-button value="words">Words</el-radio-button><el-radio-button value="keys">Keys</el-radio-button
      ><el-radio-button value="about">About</el-radio-button>
    </el-radio-group>
    <dl v-if="part === 'words'" class="words" tabindex="0" aria-label="Words">
      <template v-for="[word, means] in glossary" :key="word"
        ><dt>{{ word }}</dt>
        <dd>{{ means }}</dd></template
      >
    </dl>
    <section v-else-if="part === 'about'" class="about" tabindex="0" aria-label="About this program">
      <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
      <p v-else-if="!about" role="status">Coming</p>
      <template v-else>
        <p>
          <b>Upbeat Ladle {{ about.version }}</b
          ><template v-if="about.commit">, built from {{ about.commit }}</template>
        </p>
        <p class="muted">Fonts, scripts and modules of others ship inside it, with their thanks and terms:</p>
        <details v-for="n in about.notices" :key="n.names[0]">
          <summary>
            <span>{{ n.names.join(', ') }}</span><small>{{ n.license }}</small>
          </summary>
          <pre>{{ n.text }}</pre>
        </details>
      </template>
    </section>
    <template v-else>
      <dl class="keys" tabindex="0" aria-label="Keys">
        <template v-for="[k, what] in keys" :key="k"
          ><dt>
            <kbd>{{ k }}</kbd>
          </dt>
          <dd>{{ what }}</dd></template
        >
      </dl>
      <el-switch v-model="letterKeys" aria-label="Keys of one letter" active-text="Keys of one letter are on" />
    </template>
  </el-dialog>
</template>

<style scoped>
.tour {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: var(--s2) var(--s3);
  padding: var(--s3);
  margin-bottom: var(--s3);
}
.tour p {
  flex: 1 1 240px;
}
.tour b,
.tour span {
  display: block;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: var(--s2) var(--s4);
  margin: var(--s3) 0;
  max-height: 52vh;
  overflow: auto;
}
.words dt {
  font-weight: 700;
}
.keys dt {
  align-self: center;
}
.about {
  margin: var(--s3) 0;
  max-height: 52vh;
  overflow: auto;
}
summary {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--s3);
  min-height: var(--touch);
  border-top: 1px solid var(--hair);
  cursor: pointer;
  overflow-wrap: anywhere;
}
small {
  flex: none;
  color: var(--ink-2);
  font-size: var(--t-mini);
}
pre {
  margin: 0;
  white-space: pre-wrap;
  font: inherit;
  font-size: var(--t-mini);
}
dd {
  margin: 0;
  line-height: 1.3;
}
@media (max-width: 560px) {
  .words {
    grid-template-columns: 1fr;
    row-gap: 0;
  }
  .words dd {
    padding-bottom: var(--s2);
  }
}
</style>
