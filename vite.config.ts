import { sveltekit } from '@sveltejs/kit/vite'
import tailwindcss from '@tailwindcss/vite'
import { defineConfig } from 'vitest/config'

const RUNS_ON = /node_modules\/(svelte\/src|@sveltejs\/kit\/src|clsx|esm-env)|vite\/preload-helper/

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	// Fonts are never written into the style sheet: the content policy lets them come from files of ours alone.
	build: {
		assetsInlineLimit: (file) => (file.endsWith('.woff2') ? false : undefined),
		// A page carries the names of what it may load next: of other pages the styles alone, or they outweigh its own.
		modulePreload: {
			resolveDependencies: (_file, needs, { hostId }) =>
				/entry\/app\./.test(hostId) ? needs.filter((each) => each.endsWith('.css')) : needs
		},
		// What every page runs on is one file: packed together it is smaller than in pieces.
		rolldownOptions: { output: { codeSplitting: { groups: [{ name: 'run', test: RUNS_ON, minShareCount: 15 }] } } }
	},
	test: {
		include: ['src/**/*.test.ts', 'tests/unit/**/*.test.ts'],
		environment: 'node',
		// Some tests run the threads as they are built; from what the sources are now.
		globalSetup: 'tests/support/build-threads.ts',
		expect: { requireAssertions: true },
		testTimeout: 60_000,
		// Several make the demo, six years of rows, on a machine that may have other work.
		hookTimeout: 180_000
	}
})
