import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['src/api/schema.d.ts', 'eslint.config.js', 'engine/**', 'public/**'] },
  js.configs.recommended,
  tseslint.configs.recommendedTypeChecked,
  hooks.configs.flat.recommended,
  {
    // One door to the server in every room; how things behave is ui's alone.
    files: ['src/**/*.tsx', 'src/**/*.ts'],
    ignores: ['src/api/**', 'src/shared/**', 'src/**/data.ts', 'src/**/*.test.*', 'src/ui/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            { name: 'radix-ui', message: 'Use what src/ui makes of it.' },
            {
              name: '../api/client',
              importNames: ['api', 'answer', 'stream'],
              message: "Only a room's data.ts speaks to the server.",
            },
          ],
        },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: 'JSXOpeningElement[name.name=/^(select|details|summary|progress|dialog)$/]',
          message: 'src/ui has it, with the behaviour everything else here has.',
        },
        {
          selector:
            'JSXOpeningElement[name.name="input"] > JSXAttribute[name.name="type"][value.value=/^(checkbox|radio|range)$/]',
          message: 'src/ui has it, with the behaviour everything else here has.',
        },
        {
          selector: 'CallExpression[callee.name=/^(confirm|alert|prompt)$/]',
          message: 'Ask with an AlertDialog, and only about what cannot be undone.',
        },
      ],
    },
  },
  { languageOptions: { parserOptions: { projectService: true } } },
)
