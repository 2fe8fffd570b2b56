import type { SealCheck } from '$lib/core/requests/logbook.ts'
import { error } from '@sveltejs/kit'
import { asJson } from '$lib/server/web/answer.ts'
import { getUser } from '$lib/server/web/signed-in.ts'

/** Whether every entry of the Logbook fits its seal. It reads all of them, so it is asked for, and by few. */
export function GET({ locals }) {
	const { isBuilder, isSteward } = getUser(locals)
	if (!isBuilder && !isSteward) error(403, 'The Logbook is for builders and stewards.')
	return asJson<SealCheck>(() => locals.host.read('checkSeals', undefined))
}
