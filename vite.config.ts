import { sveltekit } from '@sveltejs/kit/vite'
import tailwindcss from '@tailwindcss/vite'
import { defineConfig } from 'vitest/config'

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	// Fonts are never written into the style sheet: the content policy lets them come from files of ours alone.
	build: { assetsInlineLimit: (file) => (file.endsWith('.woff2') ? false : undefined) },
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
