/** What came of looking at a workbook, and the process that looks. */
import { execFileSync } from 'node:child_process'
import { join } from 'node:path'

export interface WorkbookFigures {
	readonly rows: number
	readonly columns: number
	readonly inspectMs: number
	readonly libraryMs: number
	/** Resident memory of the whole process before the look, and at most. */
	readonly idleMegabytes: number
	readonly mostMegabytes: number
	/** The slowest look at a small file meanwhile, and the first, which finds no thread started for it. */
	readonly smallMost: number
	readonly smallFirst: number
}

export function workbookFigures(folder: string, scripts: string): WorkbookFigures {
	const script = join(scripts, 'measure-workbook.js')
	const out = execFileSync(process.execPath, [script, folder, scripts], {
		encoding: 'utf8',
		stdio: ['ignore', 'pipe', 'inherit']
	})
	return JSON.parse(out) as WorkbookFigures
}
