<script setup lang="ts">
import { ref } from 'vue'
import { api, got, said } from '@/api/client'

/** The text that something was read from, as it was pasted. */
const { id } = defineProps<{ id: string }>()
const shown = ref(false)
const text = ref<string>()
const trouble = ref('')
async function show() {
  shown.value = true
  try {
    text.value = (await got(api.GET('/texts/{id}', { params: { path: { id } } }))).text
    trouble.value = ''
  } catch (e) {
    trouble.value = said(e)
  }
}
</script>

<template>
  <el-button class="source" @click="show">The text it was read from</el-button>
  <el-dialog v-model="shown" append-to-body title="As it was pasted" width="min(620px, 96vw)">
    <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }} <el-button @click="show">Try again</el-button></p>
    <p v-else-if="text === undefined" role="status">One moment</p>
    <pre v-else class="well source-text" tabindex="0">{{ text }}</pre>
  </el-dialog>
</template>

<style scoped>
pre {
  margin: 0;
  padding: var(--s3);
  font: inherit;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-height: 60vh;
  overflow: auto;
}
</style>
