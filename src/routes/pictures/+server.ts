import { z } from 'zod'
import type { TakenAppFile } from '$lib/core/requests/app-files.ts'
import { AppError } from '$lib/core/app-error.ts'
import { readQuery, textInAddress } from '$lib/server/web/address.ts'
import { asJson } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

/** Takes in a picture, a film or the ground of a map that a builder gives an app. */
export function PUT({ locals, request, url }) {
	const actor = getBuilder(locals)
	return asJson<TakenAppFile>(async () => {
		const { name, kind } = readQuery(url, {
			name: textInAddress.default(''),
			kind: z.enum(['picture', 'film', 'ground'])
		})
		if (!request.body) throw new AppError('invalid', 'This file is empty. Choose another.')
		return locals.host.takeAppFile({ kind, name, body: request.body, actor })
	})
}
