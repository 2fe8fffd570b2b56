/** A message as HTML: the same words as its text, every sign of them as text, so that no value becomes a link or a heading. */
import { underReport, type ReportTable } from '$lib/core/requests/report.ts'

export interface MailWords {
	/** Of the workspace. */
	readonly from: string
	readonly subject: string
	/** Lines, with blank lines between paragraphs. */
	readonly text: string
	/** The rows that it shows. */
	readonly report: ReportTable | null
	/** Of the file that comes with it. */
	readonly fileName: string | undefined
	/** Where it leads, whole; undefined where it leads nowhere. */
	readonly link: string | undefined
}

const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' }

const FONT = 'font-family:Helvetica,Arial,sans-serif'
// The tokens of the interface in the light; many readers of mail know no style sheets.
const [PITCH, PAPER, QUIET, LINE] = ['#16201b', '#ffffff', '#4f5b55', '#cfd4d0']

export function mailHtml({ from, subject, text, report, fileName, link }: MailWords): string {
	const paragraphs = text
		.trim()
		.split(/\n{2,}/)
		.filter((each) => each !== '')
		.map((each) => `<p style="margin:0 0 14px">${escaped(each).replaceAll('\n', '<br>')}</p>`)
		.join('')
	const rows = report ? reportHtml(report, fileName !== undefined) : ''
	const file = fileName === undefined ? '' : `<p style="margin:14px 0 0">With it comes ${escaped(fileName)}.</p>`
	const button =
		link === undefined
			? ''
			: `<p style="margin:20px 0 0"><a href="${escaped(link)}" style="display:inline-block;padding:12px 22px;background:${PITCH};color:${PAPER};border-radius:3px;text-decoration:none;font-weight:bold">Open it</a></p><p style="margin:12px 0 0;font-size:13px;color:${QUIET};word-break:break-all">${escaped(link)}</p>`
	return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(subject)}</title></head><body style="margin:0;background:${PAPER};color:${PITCH};${FONT};font-size:16px;line-height:1.5"><div style="max-width:${report ? 860 : 560}px;margin:0 auto;padding:24px 20px"><p style="margin:0 0 18px;padding:0 0 10px;border-bottom:1px solid ${LINE};font-size:14px;color:${QUIET}">${escaped(from)}</p><h1 style="margin:0 0 14px;font-size:20px;line-height:1.3">${escaped(subject)}</h1>${paragraphs}${rows}${file}${button}</div></body></html>`
}

/** Widths are left to whoever shows it: what does not fit is moved sideways. */
function reportHtml(report: ReportTable, inFile: boolean): string {
	const { heads, rows, foot } = report
	const cell = (tag: 'th' | 'td', style: string) => (text: string, i: number) =>
		`<${tag} style="padding:7px 14px 7px 0;text-align:${heads[i]?.isNumber ? 'right' : 'left'};vertical-align:top;${style}">${escaped(text)}</${tag}>`
	const line = (cells: readonly string[], tag: 'th' | 'td', style: string) =>
		`<tr>${cells.map(cell(tag, style)).join('')}</tr>`
	const head = line(
		heads.map(({ name }) => name),
		'th',
		`border-bottom:2px solid ${PITCH};font-size:14px`
	)
	const body = rows.map((cells) => line(cells, 'td', `border-bottom:1px solid ${LINE}`)).join('')
	const last = foot.length === 0 ? '' : line(foot, 'td', 'font-weight:bold')
	const under = underReport(report, inFile)
	const says = under === '' ? '' : `<p style="margin:8px 0 0;font-size:14px;color:${QUIET}">${escaped(under)}</p>`
	return `<div style="overflow-x:auto"><table style="border-collapse:collapse;width:100%;font-size:15px">${head}${body}${last}</table></div>${says}`
}

function escaped(text: string): string {
	return text.replace(/[&<>"']/g, (sign) => SIGNS[sign] ?? '')
}
