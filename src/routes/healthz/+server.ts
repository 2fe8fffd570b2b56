import { json } from '@sveltejs/kit'

/** Says ok when the readers answer; anything else is 503. No detail for whoever is not signed in. */
export async function GET({ locals }) {
	const ok = await locals.host.read('workspace', undefined).then(
		() => true,
		() => false
	)
	return json({ ok }, { status: ok ? 200 : 503 })
}
