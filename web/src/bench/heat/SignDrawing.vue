<script setup lang="ts">
defineProps<{ shown: string; colour?: string }>()
</script>

<template>
  <svg viewBox="0 0 96 58" class="sign-drawing" aria-hidden="true" :style="{ '--cake': colour ?? 'var(--raw)' }">
    <template v-if="shown === 'bubbles'">
      <ellipse cx="48" cy="29" rx="42" ry="25" class="cake" />
      <circle
        v-for="(b, i) in [
          [30, 22, 4],
          [46, 15, 3],
          [62, 24, 5],
          [40, 34, 5],
          [58, 40, 4],
          [26, 36, 3],
          [72, 34, 3],
        ]"
        :key="i"
        :cx="b[0]"
        :cy="b[1]"
        :r="b[2]"
        class="hole" />
    </template>
    <template v-else-if="shown === 'rim' || shown === 'dull' || shown === 'dry_rim'">
      <ellipse cx="48" cy="29" rx="42" ry="25" class="crust" />
      <ellipse cx="48" cy="29" :rx="shown === 'dull' ? 38 : 31" :ry="shown === 'dull' ? 21 : 16" class="cake" />
      <path v-if="shown === 'rim'" d="M34 22c6-5 16-6 24-3" class="shine" />
      <path v-if="shown === 'dry_rim'" d="M78 10c5 6 7 9 7 12a7 7 0 0 1-14 0c0-3 2-6 7-12z" class="drop" />
      <path v-if="shown === 'dry_rim'" d="M68 8 90 32" class="line" />
    </template>
    <template v-else-if="shown === 'lets_go' || shown === 'slides'">
      <path d="M14 40q0-18 12-18h34q12 0 12 18z" class="cake" />
      <path d="M14 40h58" class="under" />
      <path d="M6 48h84" class="plate" />
      <path v-if="shown === 'lets_go'" d="M60 46 92 26" class="line" />
      <path d="M34 10H14M20 4l-7 6 7 6" class="line" />
      <path v-if="shown === 'slides'" d="M54 10h20M68 4l7 6-7 6" class="line" />
    </template>
    <template v-else-if="shown === 'look'">
      <path d="M14 34 66 16q8 8 2 16L20 48z" class="cake" />
      <path d="M18 46 68 30" class="under" />
      <path d="M6 52h84" class="plate" />
      <path d="M58 9c6-7 22-7 28 0-6 7-22 7-28 0z" class="eye" />
      <circle cx="72" cy="9" r="3.500" class="dot" />
    </template>
    <template v-else-if="shown === 'springs'">
      <path d="M14 44q0-20 12-20h12q10 6 20 0h12q12 0 12 20z" class="cake" />
      <path d="M14 44h68" class="under" />
      <path d="M40 2v16q8 8 16 0V2" class="line" />
      <path d="M76 20V6M70 11l6-6 6 6" class="up" />
    </template>
    <template v-else-if="shown === 'steam'">
      <path d="M14 44h68v-8q0-8-8-8H22q-8 0-8 8z" class="iron" />
      <path d="M34 20c-6-6 6-8 0-16M50 22c-4-4 4-6 0-10M64 22c-2-2 2-3 0-6" class="steam" />
    </template>
    <template v-else-if="shown === 'lid'">
      <path d="M14 48h68v-8H14z" class="iron" />
      <path d="M14 38 78 14l4 8-66 20z" class="iron" />
      <path d="M60 8V-2" class="up" />
    </template>
    <template v-else-if="shown === 'light'">
      <path d="M14 48h68V30q0-8-8-8H22q-8 0-8 8z" class="iron" />
      <circle cx="66" cy="34" r="6" class="lamp" />
      <path d="M66 16v-8M78 20l5-6M54 20l-5-6" class="line" />
    </template>
    <template v-else>
      <path d="M14 46h68V28q0-8-8-8H22q-8 0-8 8z" class="iron" />
      <path d="M14 33h68" class="line" />
      <path d="M42 12V8a6 6 0 0 1 12 0v4M38 12h20v8H38z" class="line" />
    </template>
  </svg>
</template>

<style scoped>
.sign-drawing {
  width: 84px;
  height: 50px;
  flex: none;
}
.cake {
  fill: var(--cake);
  stroke: var(--crust-deep);
  stroke-width: 2;
}
.crust {
  fill: var(--crust);
  stroke: var(--crust-deep);
  stroke-width: 2;
}
.hole {
  fill: var(--crust-deep);
}
.under {
  stroke: var(--crust-deep);
  stroke-width: 5;
}
.plate {
  stroke: var(--steel-2);
  stroke-width: 4;
  stroke-linecap: round;
}
.line,
.up,
.shine,
.steam,
.eye {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.shine {
  stroke: var(--enamel);
}
.up {
  stroke: var(--leaf);
  stroke-width: 4;
}
.steam {
  stroke: var(--water);
}
.eye {
  fill: var(--enamel);
}
.dot {
  fill: var(--ink);
}
.drop {
  fill: var(--water-fill);
}
.iron {
  fill: var(--steel);
  stroke: var(--ink);
  stroke-width: 2;
}
.lamp {
  fill: var(--leaf);
}
</style>
