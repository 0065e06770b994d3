import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import ts from 'typescript-eslint'

const long = {
  code: 120,
  ignoreStrings: true,
  ignoreTemplateLiterals: true,
  ignoreUrls: true,
  ignoreRegExpLiterals: true,
}

export default ts.config(
  { ignores: ['dist', 'node_modules', 'src/api/schema.d.ts', '*.cjs'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  prettier, // how it looks is Prettier's
  {
    files: ['**/*.{ts,vue}'],
    languageOptions: {
      globals: globals.browser,
      parserOptions: { parser: ts.parser, extraFileExtensions: ['.vue'], sourceType: 'module' },
    },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      'vue/multi-word-component-names': 'off',
      'no-restricted-globals': ['error', { name: 'fetch', message: 'Ask by api/client, which is typed, and api/ask.' }],
    },
  },
  { files: ['**/*.ts'], rules: { 'max-len': ['error', long] } },
  {
    files: ['**/*.vue'],
    rules: {
      'max-lines': ['error', 259],
      'vue/max-len': [
        'error',
        { ...long, template: 120, ignoreHTMLAttributeValues: true, ignoreHTMLTextContents: true },
      ],
    },
  },
)
