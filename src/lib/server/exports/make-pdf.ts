/**
 * Pages as PDF. Runs in an importer's thread. Only its own fonts and the bytes that it is given are read: whatever stands in a
 * row, nothing is fetched and no file of the machine is opened.
 */
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import pdfmake from 'pdfmake'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js'
import { underReport, type PagePart, type ReportTable } from '$lib/core/requests/report.ts'

export interface Pages {
	readonly parts: readonly PagePart[]
	/** Of pictures, by their digest, as base64; what is missing here is named instead. */
	readonly pictures: Readonly<Record<string, string>>
	/** At the foot of each page: the workspace, and when it was written. */
	readonly foot: string
}

// Fonts that hold the letters of every language that is written from left to right, and many more.
const FONTS = join(dirname(createRequire(import.meta.url).resolve('dejavu-fonts-ttf/package.json')), 'ttf')
const font = (name: string) => join(FONTS, `DejaVuSansCondensed${name}.ttf`)
pdfmake.setFonts({
	Page: { normal: font(''), bold: font('-Bold'), italics: font('-Oblique'), bolditalics: font('-BoldOblique') }
})
pdfmake.setUrlAccessPolicy(() => false)
pdfmake.setLocalAccessPolicy((path: string) => dirname(path) === FONTS)

/** What a PDF can draw of pictures (ISO 32000-1, 8.9): others are named. */
const DRAWN: ReadonlySet<string> = new Set(['image/jpeg', 'image/png'])
// In points; A4 with 2 cm at its sides.
const MARGIN = 57
const WIDTH = 595 - 2 * MARGIN

/** @returns the bytes */
export async function makePdf({ parts, pictures, foot }: Pages): Promise<Buffer> {
	const [first] = parts
	const definition: TDocumentDefinitions = {
		pageSize: 'A4',
		pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN],
		info: { title: first?.kind === 'heading' ? first.text : '' },
		defaultStyle: { font: 'Page', fontSize: 10, lineHeight: 1.25 },
		content: parts.map((part, i) => contentOf(part, { isTitle: i === 0, pictures })),
		footer: (page: number, pages: number) => ({
			columns: [{ text: foot }, { text: `${page} of ${pages}`, alignment: 'right', width: 60 }],
			...{ margin: [MARGIN, 18, MARGIN, 0], fontSize: 8, color: '#4f5b55' }
		})
	}
	return pdfmake.createPdf(definition).getBuffer()
}

function contentOf(part: PagePart, { isTitle, pictures }: { isTitle: boolean; pictures: Pages['pictures'] }): Content {
	switch (part.kind) {
		case 'heading':
			return { text: part.text, bold: true, fontSize: isTitle ? 18 : 13, margin: [0, isTitle ? 0 : 12, 0, 6] }
		case 'words':
			return { text: part.text, margin: [0, 0, 0, 8] }
		case 'values': {
			const body = part.values.map(({ name, text }) => [{ text: name, bold: true }, { text: text || '–' }])
			return {
				table: { headerRows: 0, widths: [130, '*'], body },
				layout: 'lightHorizontalLines',
				margin: [0, 2, 0, 10]
			}
		}
		case 'rows':
			return rowsOf(part.table)
		case 'picture': {
			const bytes = pictures[part.sha]
			if (bytes === undefined || !DRAWN.has(part.type)) return { text: `(${part.name})`, italics: true }
			return { image: `data:${part.type};base64,${bytes}`, fit: [WIDTH, 230], margin: [0, 4, 0, 10] }
		}
	}
}

function rowsOf(table: ReportTable): Content {
	const { heads, rows, foot } = table
	const cell = (text: string, i: number, bold: boolean): TableCell => ({
		...{ text, bold, alignment: heads[i]?.isNumber ? 'right' : 'left' }
	})
	const line = (texts: readonly string[], bold = false) => texts.map((text, i) => cell(text, i, bold))
	const body = [line(heads.map(({ name }) => name), true), ...rows.map((row) => line(row)), ...(foot.length > 0 ? [line(foot, true)] : [])] // prettier-ignore
	const under = underReport(table, false)
	return [
		{
			// Numbers take what they need, words share the rest.
			table: { headerRows: 1, widths: heads.map(({ isNumber }) => (isNumber ? 'auto' : '*')), body },
			...{ layout: 'lightHorizontalLines', margin: [0, 2, 0, 6] }
		},
		...(under === ''
			? []
			: [{ text: under, color: '#4f5b55', margin: [0, 0, 0, 8] as [number, number, number, number] }])
	]
}
