import { json } from '@sveltejs/kit'

/** Says ok when the readers answer and the last small write went well; else 503. No detail for whoever is not signed in. */
export async function GET({ locals: { host } }) {
	const answers = await host.read('workspace', undefined).then(
		() => true,
		() => false
	)
	const ok = answers && host.isWell()
	return json({ ok }, { status: ok ? 200 : 503 })
}
