<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { api, said, signedOut } from '@/api/client'
import { forgetLast } from '@/away/drafts'
import { shellKept } from '@/away/shell'
import { say } from '@/parts/say'
import CameraSquare from './CameraSquare.vue'
import PasscodeDialog from './PasscodeDialog.vue'
import { day, useHouse } from './house'

/** Who else works in this kitchen, and from where. */
const at = useHouse()
onMounted(at.load)
const changing = ref(false)
const trouble = ref('')
const here = computed(() => at.house?.tablets.find((t) => t.id === at.house?.tablet))
const others = computed(() => at.house?.tablets.filter((t) => t.id !== at.house?.tablet) ?? [])
/** What a browser does on a page that it holds for secure only. */
const secure = computed(() => window.isSecureContext && shellKept.value !== false)

async function end(words: string, call: () => Promise<unknown>) {
  trouble.value = ''
  try {
    await call()
    say({ message: words, duration: 4000 })
  } catch (e) {
    trouble.value = said(e)
  }
  await at.load()
}
const signOut = (id: string, name: string) =>
  end(`“${name}” is signed out. It comes in again with the passcode.`, () => api.DELETE('/house/tablets/{id}', { params: { path: { id } } }))
const takeBack = (id: string, name: string) =>
  end(`The link to “${name || 'a card'}” opens nothing any more.`, () => api.DELETE('/house/guests/{id}', { params: { path: { id } } }))
async function leave() {
  trouble.value = ''
  try {
    await api.DELETE('/session')
    forgetLast()
    signedOut.value = true
  } catch (e) {
    trouble.value = said(e)
  }
}
</script>

<template>
  <section class="panel other-tablets">
    <header>
      <h2>Other tablets</h2>
      <p v-if="at.house?.open" class="end">
        {{ at.house.secure ? 'nobody on the network can read along' : 'readable by whoever is on the network' }}
      </p>
    </header>
    <div class="inside">
      <p v-if="at.trouble || trouble" role="alert">
        <i class="sign high" />{{ trouble || at.trouble }} <el-button v-if="at.trouble" @click="at.load">Try again</el-button>
      </p>
      <p v-else-if="!at.house" class="muted">Looking …</p>
      <template v-if="at.house && !at.house.open">
        <p>
          This kitchen is open on its own machine only. To work from a tablet at the bowl and a phone at the plate, close the program and start it
          with
        </p>
        <p><kbd>upbeat-ladle serve --lan</kbd></p>
        <p class="muted">It then makes a passcode and tells it once, and shows here where the tablets come in.</p>
      </template>
      <template v-else-if="at.house">
        <div v-for="(d, i) in at.house.doors" :key="d.url" class="door">
          <CameraSquare v-if="!i" :door="d" />
          <p>
            <b class="url">{{ d.url }}</b><template v-if="!i"
              ><br /><small>Scan it with the other tablet, or type it there. It then asks for the passcode.</small></template
            >
          </p>
        </div>
        <div v-if="at.house.own_certificate" class="well trust">
          <p>
            <b>Each tablet trusts this kitchen once.</b> Until then its browser warns. Open <b class="url">{{ at.house.trust }}</b> on it: that page
            says how.
          </p>
          <details>
            <summary>The certificate's fingerprint, to compare</summary>
            <code>{{ at.house.fingerprint }}</code>
          </details>
        </div>
        <p v-if="!secure" class="well trust" role="note">
          <i class="sign high" /><b>This page is not secure.</b> On this tablet the screen cannot be kept awake, and the bench does not open while the
          program is away. Come in by https, with the certificate trusted, for both.
        </p>
        <h3>Signed in</h3>
        <ul class="rows">
          <li v-if="here" class="well here">
            <span class="what"
              ><b>{{ here.name }}</b
              ><small>this tablet, since {{ day(here.since) }}</small></span
            >
            <el-button @click="leave">Sign out</el-button>
          </li>
          <li v-for="t in others" :key="t.id" class="well">
            <span class="what"
              ><b>{{ t.name }}</b
              ><small>since {{ day(t.since) }}, last seen {{ day(t.seen_at) }}</small></span
            >
            <el-button :aria-label="`Sign out ${t.name}`" @click="signOut(t.id, t.name)">Sign out</el-button>
          </li>
        </ul>
        <el-button @click="changing = true">Another passcode</el-button>
      </template>
      <template v-if="at.house?.guests.length">
        <h3>Links for guests</h3>
        <ul class="rows">
          <li v-for="g in at.house.guests" :key="g.id" class="well">
            <span class="what"
              ><b>{{ g.name || 'A card that was put aside' }}</b
              ><small>shows this card and nothing else, until {{ day(g.until) }}</small></span
            >
            <el-button :aria-label="`Take back the link to ${g.name}`" @click="takeBack(g.id, g.name)">Take back</el-button>
          </li>
        </ul>
      </template>
    </div>
    <PasscodeDialog v-model="changing" @set="at.load" />
  </section>
</template>

<style scoped>
.inside {
  display: grid;
  gap: var(--s3);
  justify-items: start;
  padding: var(--s2) var(--s4) var(--s4);
}
.inside > ul {
  width: 100%;
}
.door {
  display: flex;
  align-items: center;
  gap: var(--s4);
}
.url {
  overflow-wrap: anywhere;
}
.trust {
  padding: var(--s3) var(--s4);
  width: 100%;
}
small,
summary {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
summary {
  cursor: pointer;
  padding-top: var(--s2);
}
code {
  font-size: var(--t-mini);
  overflow-wrap: anywhere;
}
h3 {
  font-size: var(--t-body);
}
.sign {
  margin-right: var(--s2);
}
</style>
