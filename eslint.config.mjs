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
      // A list made anew is never the same: such a watcher runs whenever anything it reads is set, to whatever it was.
      'no-restricted-syntax': [
        'error',
        {
          selector: ['ArrayExpression.body', 'TSAsExpression > ArrayExpression']
            .map((list) => `CallExpression[callee.name='watch'] > ArrowFunctionExpression:first-child > ${list}`)
            .join(),
          message: 'Watch a list of functions, each of one value: watch([() => a, () => b], …).',
        },
      ],
    },
  },
  {
    files: ['**/*.vue'],
    rules: { 'max-len': 'off', 'vue/max-len': ['error', { ...WIDTH, template: WIDTH.code }] },
  },
)
