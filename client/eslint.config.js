import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['src/api/schema.d.ts', 'eslint.config.js', 'engine/**', 'public/**'] },
  js.configs.recommended,
  tseslint.configs.recommendedTypeChecked,
  hooks.configs.flat.recommended,
  { languageOptions: { parserOptions: { projectService: true } } },
)
