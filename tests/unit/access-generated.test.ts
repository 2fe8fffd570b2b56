/**
 * Scenarios of the project's own generator through both doors. A longer run: TIN_SHED_SCENARIOS=5000 TIN_SHED_SEED=7
 * npx vitest run tests/unit/access-generated.test.ts
 */
import { expect, test } from 'vitest'
import { checkScenario } from '../check-values/access.ts'
import { generateScenario } from '../support/access-generator.ts'

const COUNT = Number(process.env['TIN_SHED_SCENARIOS'] ?? 150)
const SEED = Number(process.env['TIN_SHED_SEED'] ?? 20261124)

/** Nobody has a grade in it. */
test('a seed that once stopped the checker', () => {
	expect(checkScenario(generateScenario(505_098)).short).toBeUndefined()
})

test(`${COUNT} scenarios from seed ${SEED} hold through the real doors`, { timeout: 3_600_000 }, () => {
	const short = []
	const drawn = { seen: 0, allowed: 0, refused: 0 }
	for (let seed = SEED; seed < SEED + COUNT; seed++) {
		const scenario = generateScenario(seed)
		const result = checkScenario(scenario)
		if (result.short) short.push(`${result.id}: ${result.short}`)
		for (const { allowed } of scenario.attempts) drawn[allowed ? 'allowed' : 'refused']++
		for (const tables of Object.values(scenario.expected))
			for (const { seen } of Object.values(tables)) drawn.seen += Object.keys(seen).length
	}
	expect(short).toEqual([])
	// Scenarios that let nobody see or do anything would prove nothing.
	expect(drawn.seen).toBeGreaterThan(COUNT * 10)
	expect(drawn.allowed).toBeGreaterThan(COUNT)
	expect(drawn.refused).toBeGreaterThan(COUNT)
})
