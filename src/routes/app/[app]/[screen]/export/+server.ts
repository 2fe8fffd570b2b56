import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { placeOf, readHeld, readNarrowed } from '$lib/server/web/app-place.ts'
import { answerExport, formatInAddress } from '$lib/server/downloads/answer-export.ts'
import { listToExport } from '$lib/server/downloads/to-export.ts'

/** A list of an app as a file: the rows and columns that it shows to whoever asks. */
export async function GET({ locals, params, url }) {
	const { app, actor } = placeOf(locals, params)
	const { host, now } = locals
	const { line, format } = readQuery(url, { line: textInAddress.default(''), format: formatInAddress })
	const stands = { narrowed: readNarrowed(url), held: readHeld(url) }
	const asked = await forPage(() => listToExport(host, { app, screen: params.screen, line, ...stands, actor, now }))
	return answerExport({ host, actor, now }, asked, format)
}
