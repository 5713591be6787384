<script setup lang="ts">
import { ref, watch } from 'vue'
import { said } from '@/api/client'
import { useSauces, type Sauce } from './sauces'

/** A pot to begin with: a worked example, or an empty one. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ take: [sauce: Sauce]; blank: [] }>()
const sauces = useSauces()
const trouble = ref('')
watch(
  open,
  async (o) => {
    if (!o) return
    try {
      await sauces.loadExamples()
      trouble.value = ''
    } catch (e) {
      trouble.value = said(e)
    }
  },
  { immediate: true },
)
</script>

<template>
  <el-dialog v-model="open" title="A new pot" width="min(640px, 96vw)" append-to-body>
    <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
    <p v-else-if="!sauces.examples">Looking for the examples</p>
    <ul v-else class="rows">
      <li v-for="s in sauces.examples" :key="s.name" class="well" :data-example="s.name">
        <span class="what"
          ><b>{{ s.name }}</b
          ><small
            >{{ sauces.kinds.find((k) => k.kind === s.kind)?.name }}<template v-if="s.note"> · {{ s.note }}</template></small
          ></span
        >
        <el-button @click="emit('take', s)">Begin with it</el-button>
      </li>
    </ul>
    <el-button class="dashed own" @click="emit('blank')">A pot of your own</el-button>
  </el-dialog>
</template>

<style scoped>
.own {
  margin-top: var(--s3);
  width: 100%;
}
</style>
