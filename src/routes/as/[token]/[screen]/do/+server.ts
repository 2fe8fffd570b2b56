import { AppError } from '$lib/core/app-error.ts'
import { asJson } from '$lib/server/answer.ts'
import { placeOf } from '$lib/server/app-place.ts'

/** The Lookout shows what somebody sees; it saves nothing, and says so. */
export function POST({ locals, params }) {
	placeOf(locals, params)
	return asJson(async () => {
		throw new AppError('forbidden', 'This is the Lookout: it reads as this person, and saves nothing.')
	})
}
