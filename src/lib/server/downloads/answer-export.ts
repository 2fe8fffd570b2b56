/** Sends what is exported in the format that was asked for, and writes down that it left. */
import { z } from 'zod'
import { error } from '@sveltejs/kit'
import { FILE_FORMATS, type FileFormat } from '$lib/core/exchange/file-formats.ts'
import { forPage } from '../web/answer.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { exportCsv } from './export-csv.ts'
import { exportFile } from './export-file.ts'
import type { Imports } from '../imports/imports.ts'
import type { Threads } from '../threads/threads.ts'
import type { ToExport } from './to-export.ts'

/** CSV (RFC 4180) unless another format is asked. */
export const formatInAddress = z
	.custom<FileFormat>((asked) => typeof asked === 'string' && Object.hasOwn(FILE_FORMATS, asked))
	.catch('csv')

/** The file as it is made, with its name and type; 404 where there is nothing that this person may export. */
export async function answerExport(
	{ host, actor, now }: { host: Pick<Threads, 'write'> & { readonly imports: Imports }; actor: Actor; now: number },
	asked: ToExport | undefined,
	format: FileFormat
): Promise<Response> {
	if (!asked) error(404, 'This is not there, or not for you to see.')
	const { ending, mediaType } = FILE_FORMATS[format]
	const body =
		format === 'csv' || format === 'csv defused'
			? exportCsv(asked, format === 'csv defused')
			: await forPage(() => exportFile(host.imports, asked, format))
	await host.write('noteExport', { table: asked.table, format, actor, now })
	const name = `${asked.name}.${ending}`
	return new Response(body, {
		headers: {
			'content-type': mediaType,
			'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
			'cache-control': 'no-store'
		}
	})
}
