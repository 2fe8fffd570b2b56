import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'

const TESTS = (process.env['MUTANT_TESTS'] ?? 'src/lib/core/**/*.test.ts').split(',')

/** Files in the order in which they are named: the first test that fails is enough. */
class AsNamed extends BaseSequencer {
	override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
		const place = ({ moduleId }: TestSpecification) => TESTS.findIndex((test) => moduleId.endsWith(`/${test}`))
		return [...files].sort((a, b) => place(a) - place(b))
	}
}

/** The tests that faults are planted under, as `scripts/mutate.mjs` names them for each group; all run from source. */
export default defineConfig({
	resolve: { alias: { $lib: fileURLToPath(new URL('./src/lib', import.meta.url)) } },
	test: {
		include: TESTS,
		environment: 'node',
		// Each fault is tried in a process of its own; to load everything anew for each file would be most of the time.
		isolate: false,
		sequence: { sequencer: AsNamed },
		expect: { requireAssertions: true },
		testTimeout: 60_000,
		hookTimeout: 60_000
	}
})
