<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { unitLabels } from '@/bench/choices'

/** What is still open in a reading, told before it is kept. */
const shown = defineModel<boolean>({ required: true })
const { lines } = defineProps<{ lines: Schemas['ReadLine'][] }>()
const emit = defineEmits<{ keep: []; back: [] }>()
const leftOut = computed(() => lines.filter((l) => !l.goes_to))
const guessed = computed(() => lines.filter((l) => l.goes_to && l.goes_to !== 'beside'))
const unknown = computed(() => lines.filter((l) => l.goes_to === 'beside'))
</script>

<template>
  <el-dialog v-model="shown" append-to-body title="Some lines are still open" width="min(520px, 96vw)" class="still-open">
    <template v-if="leftOut.length">
      <p>Left out, and kept only as a note:</p>
      <ul>
        <li v-for="(l, i) in leftOut" :key="i" class="well">
          <b>{{ l.text }}</b><span>{{ l.asks ?? 'It was not understood.' }}</span>
        </li>
      </ul>
    </template>
    <template v-if="guessed.length">
      <p>Guessed:</p>
      <ul>
        <li v-for="(l, i) in guessed" :key="i" class="well">
          <b>{{ l.text }}</b><span
            >{{ l.asks }} Taken as {{ l.amount }} {{ unitLabels[l.unit ?? 'g'] }} of {{ l.name }}; its allergens stay not known.</span
          >
        </li>
      </ul>
    </template>
    <template v-if="unknown.length">
      <p>Kept beside it in your words, allergens not known:</p>
      <ul>
        <li v-for="(l, i) in unknown" :key="i" class="well">
          <b>{{ l.text }}</b><span>{{ l.asks ?? 'It was not understood.' }}</span>
        </li>
      </ul>
    </template>
    <footer>
      <el-button @click="emit('keep')">Save it so</el-button>
      <el-button class="go" @click="emit('back')">Back to the lines</el-button>
    </footer>
  </el-dialog>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: var(--s1) 0 var(--s3);
  display: grid;
  gap: 6px;
  max-height: 50vh;
  overflow: auto;
}
li {
  padding: 6px var(--s2);
  display: grid;
  overflow-wrap: anywhere;
}
footer {
  display: flex;
  justify-content: flex-end;
  gap: var(--s2);
}
span {
  color: var(--ink-2);
}
</style>
