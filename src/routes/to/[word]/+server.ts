import { error, redirect } from '@sveltejs/kit'

/** An app by the word of its own; whether it is open to whoever comes is said there. */
export async function GET({ locals, params }) {
	const app = await locals.host.read('appByWord', { word: params.word })
	if (app === null) error(404, 'There is no app at this address. Ask whoever gave it to you.')
	redirect(303, `/app/${app}`)
}
