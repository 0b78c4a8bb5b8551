import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

/** A feature is known to others by what its index exports; what is shared knows no feature. */
const FEATURE_DOOR = { group: ['@/features/*/*'], message: "Import what the feature's index exports." }
const NO_FEATURE = { group: ['@/features/**', '@/app/**'], message: 'What is shared knows no feature.' }

export default ts.config(
  { ignores: ['dist', 'src/shared/api/schema.d.ts', 'components.d.ts'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  {
    rules: {
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/attributes-order': 'off',
      'vue/no-v-html': 'error',
      eqeqeq: 'error',
      'no-console': 'error',
      'no-restricted-imports': ['error', { patterns: [FEATURE_DOOR] }],
      'max-lines': ['error', { max: 300 }],
      'max-lines-per-function': ['error', { max: 50, skipBlankLines: true, skipComments: true }],
    },
  },
  { files: ['src/app/router.ts'], rules: { 'no-restricted-imports': 'off' } },
  { files: ['src/shared/**'], rules: { 'no-restricted-imports': ['error', { patterns: [NO_FEATURE] }] } },
  // a composable holds its state for the functions in it, as a class does
  { files: ['**/use*.ts', '**/*.test.ts'], rules: { 'max-lines-per-function': 'off' } },
)
