import js from '@eslint/js'
import svelte from 'eslint-plugin-svelte'
import ts from 'typescript-eslint'
import svelteConfig from './svelte.config.js'

const UPWARD = [
	{
		group: ['$lib/server/*', '$lib/ui/*', '**/server/**', '**/ui/**', '**/routes/**', '$app/*', '$env/*'],
		message: 'core imports nothing above it.'
	},
	{
		group: ['node:*', 'fs', 'path', 'crypto', 'svelte', 'svelte/*', '@sveltejs/*', 'better-sqlite3'],
		message: 'core is pure: no Node, no Svelte, no database.'
	}
]

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'var/', 'node_modules/', 'test-results/'] },
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		rules: {
			'no-undef': 'off',
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			'@typescript-eslint/no-explicit-any': 'error',
			'svelte/no-navigation-without-resolve': 'off',
			'svelte/no-at-html-tags': 'error'
		}
	},
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { extraFileExtensions: ['.svelte'], parser: ts.parser, svelteConfig } }
	},
	{
		files: ['src/lib/core/**/*.ts'],
		rules: {
			'no-restricted-imports': ['error', { patterns: UPWARD }],
			'no-restricted-properties': [
				'error',
				{ object: 'Date', property: 'now', message: 'The clock is passed in.' },
				{ object: 'Math', property: 'random', message: 'Chance is passed in.' }
			],
			'no-restricted-globals': ['error', 'process', 'window', 'document', 'fetch']
		}
	},
	{
		files: ['src/routes/**/*', 'src/lib/ui/**/*'],
		rules: {
			'no-restricted-imports': [
				'error',
				{ patterns: [{ group: ['better-sqlite3', '**/server/store/**'], message: 'SQL lives in src/lib/server.' }] }
			]
		}
	}
)
