/**
 * Runs a table of check values against the program: `npm run check-values -- KIND FILE.json`.
 * Prints each row that falls short and, last, how many passed and failed.
 */
import { readFileSync } from 'node:fs'
import { checkScenario } from './access.ts'
import { checkCsvRow } from './csv.ts'
import { checkDateRow } from './dates.ts'
import { checkFormulaRow } from './formula.ts'
import type { RowResult } from './result.ts'
import { checkTypeRow } from './types.ts'
import { checkWorkbook } from './workbooks.ts'

type Check = (row: never, file: string) => RowResult | Promise<RowResult[]>

const CHECKS: Readonly<Record<string, Check>> = {
	access: checkScenario,
	csv: checkCsvRow,
	dates: checkDateRow,
	formula: checkFormulaRow,
	types: checkTypeRow,
	workbooks: checkWorkbook
}

const [kind = '', file = ''] = process.argv.slice(2)
const checkRow = CHECKS[kind]
if (!checkRow || file === '') {
	console.error(`Usage: npm run check-values -- KIND FILE.json, with KIND one of: ${Object.keys(CHECKS).join(', ')}`)
	process.exit(2)
}

const { rows, files } = JSON.parse(readFileSync(file, 'utf8')) as { rows?: never[]; files?: never[] }
const results: RowResult[] = []
for (const row of rows ?? files ?? []) results.push(...[await checkRow(row, file)].flat())
const short = results.filter((result) => result.short !== undefined)
for (const { id, short: what } of short) console.log(`${id}: ${what}`)
console.log(`${results.length - short.length} passed, ${short.length} failed`)
process.exit(short.length > 0 ? 1 : 0)
