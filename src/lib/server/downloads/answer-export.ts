/** Sends what is exported in the format that was asked for, and writes down that it left. */
import { z } from 'zod'
import { error } from '@sveltejs/kit'
import { forPage } from '../web/answer.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { exportCsv } from './export-csv.ts'
import { exportFile, FILE_TYPES } from './export-file.ts'
import { FILE_FORMATS } from '../exports/make-file.ts'
import type { Imports } from '../imports/imports.ts'
import type { Threads } from '../threads/threads.ts'
import type { ToExport } from './to-export.ts'

/** CSV (RFC 4180) unless another format is asked. */
export const formatInAddress = z.enum(['csv', 'csv defused', ...FILE_FORMATS]).catch('csv')

export async function answerExport(
	{ host, actor, now }: { host: Pick<Threads, 'write'> & { readonly imports: Imports }; actor: Actor; now: number },
	asked: ToExport | undefined,
	format: z.infer<typeof formatInAddress>
): Promise<Response> {
	if (!asked) error(404, 'This is not there, or not for you to see.')
	const isCsv = format === 'csv' || format === 'csv defused'
	const body = isCsv
		? exportCsv(asked, format === 'csv defused')
		: await forPage(() => exportFile(host.imports, asked, format))
	await host.write('noteExport', { table: asked.table, format, actor, now })
	const name = `${asked.name}.${isCsv ? 'csv' : format}`
	return new Response(body, {
		headers: {
			'content-type': isCsv ? 'text/csv; charset=utf-8' : FILE_TYPES[format],
			'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
			'cache-control': 'no-store'
		}
	})
}
