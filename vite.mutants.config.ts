import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

/** The tests that faults are planted under (`npm run mutate`): of the core, the doors and their guards, all from source. */
export default defineConfig({
	resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
	test: {
		include: [
			'src/lib/core/{access,query,formula,signoff}/**/*.test.ts',
			...[
				...['access', 'access-epoch', 'access-generated', 'builder-holds', 'doors', 'explain-access', 'examples'],
				...['formula-two-lives', 'formula-values', 'groups', 'kept-totals', 'lookout-sight', 'message-sight'],
				...['named-conditions', 'on-behalf', 'order-index', 'paging', 'row-rules', 'sign-offs', 'small-faults'],
				...['text-search', 'structure', 'relations', 'own-time-zone']
			].map((name) => `tests/unit/${name}.test.ts`)
		],
		environment: 'node',
		expect: { requireAssertions: true },
		testTimeout: 60_000,
		hookTimeout: 60_000
	}
})
