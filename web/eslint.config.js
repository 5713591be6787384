import js from '@eslint/js'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['dist/**', 'node_modules/**', '**/*.d.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/essential'],
  {
    files: ['**/*.{ts,vue}'],
    languageOptions: { globals: globals.browser, parserOptions: { parser: ts.parser } },
    rules: {
      'vue/multi-word-component-names': 'off',
      'no-undef': 'off', // the type check knows better
      'vue/no-v-html': 'error',
      'no-console': 'error',
      // A tag that nobody imported is drawn as nothing; the kit's own are imported as it is built.
      'vue/no-undef-components': ['error', { ignorePatterns: ['^el-', '^router-(link|view)$'] }],
    },
  },
  { files: ['src/away/sw.js'], languageOptions: { globals: globals.serviceworker } },
  { files: ['scripts/**'], languageOptions: { globals: globals.node } },
)
