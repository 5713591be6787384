import { ESLint } from 'eslint'
import { expect, it } from 'vitest'

// @vitest-environment node

it('a component that nobody imports is found before a cook misses it', async () => {
  const lint = new ESLint()
  const planted =
    '<script setup lang="ts">\nconst grams = 5\n</script>\n<template>\n  <AmountField :model-value="grams" />\n  <el-button>OK</el-button>\n</template>\n'
  const [found] = await lint.lintText(planted, { filePath: 'src/parts/Planted.vue' })
  expect(found!.messages.map((m) => m.ruleId)).toEqual(['vue/no-undef-components'])
}, 60_000)
