<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, got, said, type Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import CameraSquare from './CameraSquare.vue'
import { day, useHouse } from './house'

/** A link that shows this card, as it is whenever it is opened, and nothing else. */
const shown = defineModel<boolean>({ required: true })
const props = defineProps<{ card?: string; name?: string }>()
const at = useHouse()
const days = ref(1)
const link = ref<Schemas['GuestLink']>()
const trouble = ref('')
const busy = ref(false)
const lasts = [
  { days: 1, says: 'a day' },
  { days: 7, says: 'a week' },
  { days: 30, says: 'a month' },
]
watch(
  shown,
  (open) => {
    if (!open) return
    link.value = undefined
    trouble.value = ''
    void at.load()
  },
  { immediate: true },
)
async function make() {
  if (!props.card) return
  busy.value = true
  trouble.value = ''
  try {
    link.value = await got(api.POST('/house/guests', { body: { card: props.card, days: days.value } }))
  } catch (e) {
    trouble.value = said(e)
  } finally {
    busy.value = false
  }
}
const url = (l: Schemas['GuestLink']) => l.doors[0]?.url ?? location.origin + l.path
</script>

<template>
  <el-dialog v-model="shown" title="A link for a guest" width="min(520px, 94vw)" append-to-body class="guest-link">
    <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
    <template v-if="!link">
      <p>
        Whoever has the link sees the card of <b>{{ name }}</b> as it then is, with its allergens, and nothing else of this kitchen. No passcode is
        asked.
      </p>
      <p v-if="at.house && !at.house.open" class="muted">
        This kitchen is open on its own machine only, so the link works on this machine. Other tablets can come in after
        <kbd>upbeat-ladle serve --lan</kbd>
      </p>
      <div class="how">
        <el-radio-group v-model="days" class="pick" aria-label="How long it opens the card">
          <el-radio-button v-for="l in lasts" :key="l.days" :value="l.days">{{ l.says }}</el-radio-button>
        </el-radio-group>
        <el-button class="go" :loading="busy" @click="make"><Icon name="out" />Make the link</el-button>
      </div>
    </template>
    <template v-else>
      <div class="made">
        <CameraSquare v-if="link.doors[0]" :door="link.doors[0]" />
        <el-input :model-value="url(link)" readonly aria-label="The link" @focus="($event.target as HTMLInputElement).select()" />
      </div>
      <p>It opens the card until {{ day(link.until) }}. It is shown this once; Kitchen takes it back any time.</p>
    </template>
  </el-dialog>
</template>

<style scoped>
p {
  padding-bottom: var(--s3);
}
.how,
.made {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: var(--s3);
  padding-bottom: var(--s3);
}
.made .el-input {
  flex: 1 1 200px;
}
</style>
