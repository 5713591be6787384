<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, got, said } from '@/api/client'
import type { Sauce } from './sauces'
import { kindLabel } from './words'

/** A pot to begin with: a worked example, or an empty one. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ take: [sauce: Sauce]; blank: [] }>()
const examples = ref<Sauce[]>()
const trouble = ref('')
watch(
  open,
  async (o) => {
    if (!o || examples.value) return
    try {
      examples.value = (await got(api.GET('/sauce-examples'))).items
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
    <p v-else-if="!examples">Looking for the examples</p>
    <ul v-else class="rows">
      <li v-for="s in examples" :key="s.name" class="well" :data-example="s.name">
        <span class="what"
          ><b>{{ s.name }}</b
          ><small
            >{{ kindLabel(s.kind) }}<template v-if="s.note"> · {{ s.note }}</template></small
          ></span
        >
        <el-button @click="emit('take', s)">Begin with it</el-button>
      </li>
    </ul>
    <el-button class="dashed own" @click="emit('blank')">An own one, from the beginning</el-button>
  </el-dialog>
</template>

<style scoped>
.own {
  margin-top: var(--s3);
  width: 100%;
}
</style>
