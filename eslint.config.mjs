// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'

// Prettier lays out the code (.prettierrc.json); what it cannot break, like a sentence, is held to its width here.
const WIDTH = { code: 119, ignoreUrls: true }

export default withNuxt(
  { ignores: ['.weben/**', '.output/**', 'docs/**'] },
  {
    rules: {
      'max-len': ['error', WIDTH],
      // Prettier closes them.
      'vue/html-self-closing': 'off',
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      'eqeqeq': 'error',
    },
  },
  {
    files: ['**/*.vue'],
    rules: { 'max-len': 'off', 'vue/max-len': ['error', { ...WIDTH, template: WIDTH.code }] },
  },
)
