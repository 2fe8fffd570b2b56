/** Writes a workbook to look at: `node measure/write-workbook.mjs FILE ROWS`. Twelve columns, with the formats that people give theirs. */
import ExcelJS from 'exceljs'

const [path, count] = process.argv.slice(2)
const rows = Number(count)
const HARBOURS = ['Varrow Quay', 'Ness Hythe', 'Gull Stair', 'Orrin Slip']

const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: path, useStyles: true, useSharedStrings: true })
const sheet = book.addWorksheet('Soundings')
const formats = {
	3: '0.00',
	4: 'dd/mm/yyyy',
	5: '£#,##0.00',
	6: '0.0%',
	7: 'hh:mm',
	8: '[h]:mm'
}
const names = [
	'No.',
	'Code',
	'Harbour',
	'Depth',
	'Day',
	'Fee',
	'Share',
	'At',
	'Under water',
	'Sound',
	'Remark',
	'Diver'
]
sheet.columns = names.map((header, i) => ({ header, style: formats[i] === undefined ? {} : { numFmt: formats[i] } }))
for (let i = 0; i < rows; i++)
	sheet
		.addRow([
			...[
				i + 1,
				`NH-${i % 9000}`,
				HARBOURS[i % 4],
				(i % 900) / 100,
				new Date(Date.UTC(2026, 0, 1 + (i % 300))),
				(i % 5000) / 4
			],
			...[(i % 100) / 100, (i % 96) / 96, (i % 400) / 96, i % 3 === 0, `seen ${i}`, `Diver ${i % 40}`]
		])
		.commit()
sheet.commit()
await book.commit()
