import { error } from '@sveltejs/kit'
import { z } from 'zod'
import { forPage } from '$lib/server/answer.ts'
import { exportCsv } from '$lib/server/rows/export-csv.ts'
import { exportFile, FILE_TYPES } from '$lib/server/exports/export-file.ts'
import { FILE_FORMATS } from '$lib/server/exports/make-file.ts'
import { getActor } from '$lib/server/signed-in.ts'

const formatSchema = z.enum(['csv', 'csv defused', ...FILE_FORMATS]).catch('csv')

/** A table as a file, page by page through the same door as every read: CSV (RFC 4180) unless another format is asked. */
export async function GET({ locals, params, url }) {
	const actor = getActor(locals)
	const format = formatSchema.parse(url.searchParams.get('format') ?? 'csv')
	const asked = { table: Number(params.table), actor, now: locals.now }
	if (format === 'csv' || format === 'csv defused') {
		const csv = await exportCsv(locals.host, { ...asked, defused: format === 'csv defused' })
		if (!csv) error(404, 'This table is not there, or not for you to see.')
		await locals.host.write('noteExport', { ...asked, format })
		return asFile(csv.stream, `${csv.name}.csv`, 'text/csv; charset=utf-8')
	}
	const file = await forPage(() => exportFile(locals.host, { ...asked, format }))
	if (!file) error(404, 'This table is not there, or not for you to see.')
	await locals.host.write('noteExport', { ...asked, format })
	return asFile(file.stream, file.name, FILE_TYPES[format])
}

function asFile(body: ReadableStream, name: string, type: string): Response {
	return new Response(body, {
		headers: {
			'content-type': type,
			'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
			'cache-control': 'no-store'
		}
	})
}
