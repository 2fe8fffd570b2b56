import { error } from '@sveltejs/kit'
import { z } from 'zod'
import { readQuery } from '$lib/server/web/address.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { getOpenApp } from '$lib/server/web/open-app.ts'

/** The sizes that phones and browsers ask for, in pixels. */
const SIZES = ['180', '192', '512'] as const

/** The picture that stands for an app, square. */
export async function GET({ locals, params, url }) {
	const { size } = readQuery(url, { size: z.enum(SIZES).default('192') })
	const { icon, colour } = await forPage(() => getOpenApp(locals, params.app))
	if (!icon) error(404, 'No picture stands for this app.')
	const png = await locals.host.drawIcon({ sha: icon.sha, colour, size: Number(size) })
	return new Response(Uint8Array.from(png), { headers: { 'content-type': 'image/png' } })
}
