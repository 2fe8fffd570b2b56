/** A message as HTML: the same words as its text, every sign of them as text, so that no value becomes a link or a heading. */

export interface MailWords {
	/** Of the workspace. */
	readonly from: string
	readonly subject: string
	/** Lines, with blank lines between paragraphs. */
	readonly text: string
	/** Where it leads, whole; undefined where it leads nowhere. */
	readonly link: string | undefined
}

const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' }

const FONT = 'font-family:Helvetica,Arial,sans-serif'
// The tokens of the interface in the light; many readers of mail know no style sheets.
const [PITCH, PAPER, QUIET, LINE] = ['#16201b', '#ffffff', '#4f5b55', '#cfd4d0']

export function mailHtml({ from, subject, text, link }: MailWords): string {
	const paragraphs = text
		.trim()
		.split(/\n{2,}/)
		.filter((each) => each !== '')
		.map((each) => `<p style="margin:0 0 14px">${escaped(each).replaceAll('\n', '<br>')}</p>`)
		.join('')
	const button =
		link === undefined
			? ''
			: `<p style="margin:20px 0 0"><a href="${escaped(link)}" style="display:inline-block;padding:12px 22px;background:${PITCH};color:${PAPER};border-radius:3px;text-decoration:none;font-weight:bold">Open it</a></p><p style="margin:12px 0 0;font-size:13px;color:${QUIET};word-break:break-all">${escaped(link)}</p>`
	return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(subject)}</title></head><body style="margin:0;background:${PAPER};color:${PITCH};${FONT};font-size:16px;line-height:1.5"><div style="max-width:560px;margin:0 auto;padding:24px 20px"><p style="margin:0 0 18px;padding:0 0 10px;border-bottom:1px solid ${LINE};font-size:14px;color:${QUIET}">${escaped(from)}</p><h1 style="margin:0 0 14px;font-size:20px;line-height:1.3">${escaped(subject)}</h1>${paragraphs}${button}</div></body></html>`
}

function escaped(text: string): string {
	return text.replace(/[&<>"']/g, (sign) => SIGNS[sign] ?? '')
}
