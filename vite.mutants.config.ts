import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

/** The tests that faults are planted under, as `scripts/mutate.mjs` names them for each group; all run from source. */
export default defineConfig({
	resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
	test: {
		include: (process.env['MUTANT_TESTS'] ?? 'src/lib/core/**/*.test.ts').split(','),
		environment: 'node',
		// Each fault is tried in a process of its own; to load everything anew for each file would be most of the time.
		isolate: false,
		expect: { requireAssertions: true },
		testTimeout: 60_000,
		hookTimeout: 60_000
	}
})
