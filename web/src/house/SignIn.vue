<script setup lang="ts">
import { ref, watch } from 'vue'
import { useLocalStorage } from '@vueuse/core'
import type { InputInstance } from 'element-plus'
import { api, said, signedOut } from '@/api/client'
import Icon from '@/parts/Icon.vue'

/** Over whatever is on the screen, which stays as it is, until the passcode was given. */
const passcode = ref('')
const name = useLocalStorage('ladle.tablet', '')
const trouble = ref('')
const busy = ref(false)
const field = ref<InputInstance>()
watch(signedOut, () => (passcode.value = trouble.value = ''))
async function comeIn() {
  if (!passcode.value) {
    trouble.value = 'Type the passcode first.'
    return
  }
  busy.value = true
  trouble.value = ''
  try {
    await api.POST('/session', { body: { passcode: passcode.value, name: name.value } })
    signedOut.value = false
  } catch (e) {
    trouble.value = said(e)
  } finally {
    busy.value = false
    field.value?.focus()
  }
}
</script>

<template>
  <el-dialog
    v-model="signedOut"
    class="sign-in"
    title="This kitchen asks for its passcode"
    width="min(440px, 94vw)"
    align-center
    append-to-body
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
    @opened="field?.focus()">
    <p class="muted">Whoever runs the kitchen set it. What is on this screen stays as it is.</p>
    <el-form label-position="top" @submit.prevent="comeIn">
      <el-form-item label="Passcode" :error="trouble">
        <el-input
          ref="field"
          v-model="passcode"
          name="passcode"
          type="password"
          show-password
          autocomplete="current-password"
          autocapitalize="none"
          spellcheck="false"
          aria-label="Passcode" />
      </el-form-item>
      <el-form-item label="What this tablet is called, so that a lost one can be signed out">
        <el-input v-model="name" name="tablet" maxlength="60" placeholder="at the bowl" aria-label="What this tablet is called" autocomplete="off" />
      </el-form-item>
      <el-button class="go" native-type="submit" :loading="busy"><Icon name="kitchen" />Come in</el-button>
    </el-form>
  </el-dialog>
</template>

<style scoped>
p {
  padding-bottom: var(--s3);
}
.go {
  width: 100%;
}
</style>
