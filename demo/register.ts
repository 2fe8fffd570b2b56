/**
 * The mooring register as the harbour office keeps it: a workbook with title rows above the headings, day-first dates,
 * a stray spelling and a comma decimal.
 */
import ExcelJS from 'exceljs'
import { HARBOURS } from './people.ts'
import type { Random } from './random.ts'

const HEADINGS = [
	'Code',
	'Harbour',
	'Type',
	'Depth (m)',
	'Position',
	'Last look',
	'Chain (mm)',
	'Chain read (mm)',
	'Holder',
	'Holder phone',
	'Arrears (£)',
	'Note',
	'Old ref'
]
const TYPES = ['Swinging', 'Trot', 'Drying', 'Pontoon']
const CHAINS = [16, 19, 22, 25, 28, 32]
const FIRST = ['R.', 'B.', 'L.', 'P.', 'S.', 'D.', 'N.', 'K.', 'M.', 'A.', 'T.', 'E.']
const LAST = [
	'Tolland',
	'Oyewole',
	'Ferraby',
	'Okorie',
	'Lindmark',
	'Haverstock',
	'Abbas',
	'Rowntree',
	'Machen',
	'Quell',
	'Brandreth',
	'Skerry Sailing',
	'Penhale & Daughter',
	'Tern Charters'
]
const PLACES = { VQ: [50.312, -4.11], NH: [50.3388, -4.091], GS: [50.296, -4.144], OS: [50.301, -4.17] } as const

export type RegisterRow = readonly (string | number | Date | null)[]

/** One row for each mooring; `today` as an ISO date. */
export function registerRows(random: Random, today: string): RegisterRow[] {
	const rows: RegisterRow[] = []
	for (const harbour of HARBOURS) {
		for (let i = 1; i <= harbour.moorings; i++) rows.push(registerRow(random, harbour, i, today))
	}
	// What an office's file really looks like.
	replace(rows, 103, 1, 'ness hythe')
	replace(rows, 40, 2, 'Swingng')
	replace(rows, 110, 3, '1,4')
	return rows
}

function registerRow(random: Random, harbour: (typeof HARBOURS)[number], i: number, today: string): RegisterRow {
	const type = random.pick(TYPES)
	const chain = random.pick(CHAINS)
	const depth = type === 'Drying' ? 1 + random.below(20) / 10 : 3 + random.below(75) / 10
	const [latitude, longitude] = PLACES[harbour.prefix]
	const position = `${(latitude + i * 0.00021).toFixed(4)}, ${(longitude + random.below(60) * 0.0001).toFixed(4)}`
	const looked = random.chance(0.04) ? null : dayFirst(daysBefore(today, 20 + random.below(420)))
	const held = random.chance(0.85)
	return [
		`${harbour.prefix}-${String(i).padStart(3, '0')}`,
		harbour.name,
		type,
		depth,
		position,
		looked,
		chain,
		looked === null ? null : Number((chain * (1 - random.below(130) / 1000)).toFixed(1)),
		held ? `${random.pick(FIRST)} ${random.pick(LAST)}` : null,
		held ? `01632 960${String(random.below(1000)).padStart(3, '0')}` : null,
		held && random.chance(0.2) ? random.below(6000) / 10 + 20 : 0,
		random.chance(0.15)
			? random.pick([
					'Swivel stiff',
					'Buoy faded',
					'Holder wants to move',
					'Check after gales',
					'Fouled twice this summer'
				])
			: null,
		null
	]
}

function replace(rows: RegisterRow[], row: number, column: number, value: string): void {
	rows[row] = (rows[row] ?? []).map((cell, i) => (i === column ? value : cell))
}

function daysBefore(today: string, days: number): string {
	return new Date(Date.parse(`${today}T00:00:00Z`) - days * 86_400_000).toISOString().slice(0, 10)
}

function dayFirst(iso: string): string {
	const [year, month, day] = iso.split('-')
	return `${day}/${month}/${year}`
}

/** The workbook, written to `file`: the register, and a sheet of notes beside it. */
export async function writeRegister(file: string, rows: readonly RegisterRow[]): Promise<void> {
	const workbook = new ExcelJS.Workbook()
	const sheet = workbook.addWorksheet('Register 2026')
	sheet.addRow(['VARROW SOUND HARBOUR TRUST: REGISTER OF MOORINGS'])
	sheet.mergeCells(1, 1, 1, 6)
	sheet.addRow([])
	sheet.addRow(HEADINGS)
	for (const row of rows) sheet.addRow([...row])
	sheet.getRow(1).font = { bold: true, size: 14 }
	sheet.getRow(3).font = { bold: true }
	const notes = workbook.addWorksheet('Read me')
	notes.addRow(['Kept by the harbour office. Ask Corrie before changing a code.'])
	await workbook.xlsx.writeFile(file)
}
