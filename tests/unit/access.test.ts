import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { checkScenario, type Scenario } from '../check-values/access.ts'

/**
 * 150 generated scenarios with an independently computed answer for every cell and every attempt, through both doors.
 */
const { rows } = JSON.parse(readFileSync(new URL('../checks/access.json', import.meta.url), 'utf8')) as {
	rows: Scenario[]
}

describe('access scenarios hold through the real doors', () => {
	test.each(rows.map((scenario) => [scenario.id, scenario] as const))('%s', (_id, scenario) => {
		expect(checkScenario(scenario).short).toBeUndefined()
	})
})
