/**
 * A workbook of 450,000 rows and twelve columns looked at by the real threads, a small file meanwhile, and a library's own streamed
 * reading beside it. Runs as a process of its own, so that memory that other measures took is not counted: the folder to write to
 * and that of the threads are given, the figures come out as JSON.
 */
import ExcelJS from 'exceljs'
import { spawnSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { openImporter } from '../src/lib/server/imports/importer.ts'
import type { WorkbookFigures } from './workbook-figures.ts'

const ROWS = 450_000

const [folder = '.', scripts = 'build/threads'] = process.argv.slice(2)
const figures = await measureWorkbook(folder, scripts)
process.stdout.write(JSON.stringify(figures))
process.exit(0)

async function measureWorkbook(folder: string, scripts: string): Promise<WorkbookFigures> {
	const path = join(folder, 'soundings.xlsx')
	// In a process of its own, so that its memory is not counted here.
	spawnSync(process.execPath, [resolve('measure/write-workbook.mjs'), path, String(ROWS)], { stdio: 'inherit' })
	const small = join(folder, 'small.csv')
	writeFileSync(small, `Code,Depth\n${Array.from({ length: 100 }, (_row, i) => `NH-${i},${i}`).join('\n')}\n`)
	const importer = openImporter(join(scripts, 'importer.js'))
	let most = 0
	const watching = setInterval(() => (most = Math.max(most, megabytes())), 100)
	const idle = megabytes()
	const started = performance.now()
	const look = importer.inspect({ path, name: 'soundings.xlsx' })
	const smallMs: number[] = []
	let isOver = false
	void look.finally(() => (isOver = true)).catch(() => undefined)
	while (!isOver) {
		const asked = performance.now()
		await importer.inspect({ path: small, name: 'small.csv' })
		smallMs.push(performance.now() - asked)
		await new Promise((resolve) => setTimeout(resolve, 200))
	}
	const { rowCount, columns } = await look
	const inspectMs = performance.now() - started
	clearInterval(watching)
	await importer.close()
	const libraryMs = await readByLibrary(path)
	return {
		rows: rowCount,
		columns: columns.length,
		inspectMs,
		libraryMs,
		idleMegabytes: idle,
		mostMegabytes: most,
		smallMost: Math.max(...smallMs),
		smallFirst: smallMs[0] ?? 0
	}
}

function megabytes(): number {
	return process.memoryUsage().rss / 1024 / 1024
}

/** Reads every cell, and does nothing with it. */
async function readByLibrary(path: string): Promise<number> {
	const started = performance.now()
	let cells = 0
	const reader = new ExcelJS.stream.xlsx.WorkbookReader(path, {
		sharedStrings: 'cache',
		styles: 'cache',
		worksheets: 'emit',
		hyperlinks: 'ignore',
		entries: 'ignore'
	})
	for await (const sheet of reader) for await (const row of sheet) row.eachCell(() => cells++)
	if (cells < ROWS * 12) throw new Error(`Expected ${ROWS * 12} cells, got ${cells}`)
	return performance.now() - started
}
