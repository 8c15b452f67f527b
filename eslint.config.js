import js from '@eslint/js';
import regexp from 'eslint-plugin-regexp';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

const noInterface = [
	{
		group: ['svelte', 'svelte/*', '$app/*', '$lib/*', '**/lib/**', '**/routes/**', '**/workers/**', '**/cli/**'],
		message: 'src/core knows no interface.'
	},
	{
		group: ['node:*', 'fs', 'path', 'localforage', 'echarts', 'carbon-components-svelte'],
		message: 'src/core runs anywhere.'
	}
];

/** The core is arithmetic and text: it never sees the interface, the page, the machine, the clock or chance. */
const coreOnly = {
	files: ['src/core/**/*.ts'],
	ignores: ['src/core/**/*.test.ts'],
	languageOptions: { globals: {} },
	rules: {
		'no-restricted-imports': ['error', { patterns: noInterface }],
		'no-restricted-globals': [
			'error',
			...[
				'window',
				'document',
				'navigator',
				'localStorage',
				'indexedDB',
				'fetch',
				'process',
				'Buffer',
				'setTimeout',
				'setInterval',
				'performance',
				'crypto'
			].map((name) => ({
				name,
				message: 'src/core takes what it needs as an argument.'
			}))
		],
		'no-restricted-syntax': [
			'error',
			{
				selector: "NewExpression[callee.name='Date'][arguments.length=0]",
				message: 'src/core never reads the clock: pass the time in.'
			},
			{
				selector: "MemberExpression[object.name='Date'][property.name='now']",
				message: 'src/core never reads the clock: pass the time in.'
			},
			{
				selector: "MemberExpression[object.name='Math'][property.name='random']",
				message: 'src/core has no chance in it: pass it in.'
			}
		]
	}
};

/** Links meet only through the plan, the context and claims; `up` is how one gets out of a link's own folder. */
const linksApart = (files, ignores, up) => ({
	files,
	ignores: ['src/core/**/*.test.ts', ...ignores],
	rules: {
		'no-restricted-imports': [
			'error',
			{
				patterns: [
					...noInterface,
					{ regex: `^${up}(?!\\.\\./)|/links/`, message: 'No link imports another: claim it instead.' }
				]
			}
		]
	}
});

export default ts.config(
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{ languageOptions: { globals: { ...globals.browser, ...globals.node } } },
	{ files: ['**/*.svelte', '**/*.svelte.ts'], languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } } },
	{
		plugins: { regexp },
		rules: {
			// What people paste and drop is read in linear time.
			'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
			'regexp/no-super-linear-move': ['error', { report: 'potential', ignoreSticky: false }],
			'regexp/no-misleading-unicode-character': 'error',
			'@typescript-eslint/consistent-type-imports': 'error',
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
			// Control characters in what people paste and type are our daily business.
			'no-control-regex': 'off',
			'no-undef': 'off',
			// Large values are replaced whole ($state.raw), never changed in place.
			'svelte/prefer-svelte-reactivity': 'off',
			'svelte/no-navigation-without-resolve': 'off'
		}
	},
	{
		// What is longer is two things; tables, and what a test goes through, may be as long as they are.
		files: ['src/**/*.ts'],
		ignores: ['**/*.test.ts'],
		rules: {
			'max-lines-per-function': ['error', { max: 80 }],
			'max-lines': ['error', { max: 350, skipBlankLines: true, skipComments: true }]
		}
	},
	{
		files: ['src/**/*[tT]able.ts', 'src/core/parts/catalogue/**', '**/*.test.ts'],
		rules: { 'max-lines': 'off', 'max-lines-per-function': 'off' }
	},
	{
		// What a test looks for is short, and nobody else's.
		files: ['**/*.test.ts', 'tests/**'],
		rules: { 'regexp/no-super-linear-backtracking': 'off', 'regexp/no-super-linear-move': 'off' }
	},
	coreOnly,
	linksApart(['src/core/links/*/**/*.ts'], ['src/core/links/*/*/**'], '\\.\\./'),
	linksApart(['src/core/links/*/*/**/*.ts'], [], '\\.\\./\\.\\./'),
	{ ignores: ['.cache/', 'build/', '.svelte-kit/', 'node_modules/', 'test-results/'] }
);
