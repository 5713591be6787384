<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, faultsOf } from '@/api/client'
import { say } from '@/parts/say'

const shown = defineModel<boolean>({ required: true })
const emit = defineEmits<{ set: [] }>()
const passcode = ref('')
const next = ref('')
const faults = ref<Record<string, string>>({})
const busy = ref(false)
watch(shown, () => {
  passcode.value = next.value = ''
  faults.value = {}
})
async function set() {
  busy.value = true
  faults.value = {}
  try {
    await api.PUT('/house/passcode', { body: { passcode: passcode.value, next: next.value } })
    shown.value = false
    say({ message: 'The passcode is set. Every other tablet is signed out and gives the new one.', duration: 6000, showClose: true })
    emit('set')
  } catch (e) {
    faults.value = faultsOf(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <el-dialog v-model="shown" title="Another passcode" width="min(440px, 94vw)" append-to-body>
    <el-form label-position="top" @submit.prevent="set">
      <p v-if="faults['']" class="fault" role="alert"><i class="sign high" /> {{ faults[''] }}</p>
      <el-form-item label="The one that is set" :error="faults.passcode">
        <el-input
          v-model="passcode"
          type="password"
          show-password
          autocomplete="current-password"
          autocapitalize="none"
          aria-label="The one that is set" />
      </el-form-item>
      <el-form-item label="The new one: at least 8 letters, a few words are easiest" :error="faults.next">
        <el-input v-model="next" type="password" show-password autocomplete="new-password" autocapitalize="none" aria-label="The new one" />
      </el-form-item>
      <el-button class="go" native-type="submit" :loading="busy" :disabled="!passcode || !next">Set it</el-button>
    </el-form>
  </el-dialog>
</template>

<style scoped>
.fault {
  padding-bottom: var(--s3);
}
</style>
