import { goto } from '$app/navigation'
import { ask, send } from '../send.ts'

/** What a browser's chooser offers. */
export const ACCEPTED_FILES = '.csv,.tsv,.txt,.xlsx,.ods,.json,.ndjson,.jsonl,.db,.sqlite,.sqlite3'

/** Gives a file in, and goes on to it once it could be read. */
export class SourceGiving {
	/** The file that is on its way; empty while there is none. */
	busy = $state('')
	wrong = $state('')
	readonly #app: () => number

	/** @param app the app on whose Bench the file is given in */
	constructor(app: () => number) {
		this.#app = app
	}

	/** @param again the table that it is brought into once more */
	async take(file: File | undefined, again?: number): Promise<void> {
		if (!file) return
		this.wrong = ''
		this.busy = file.name
		const given = await ask(`/bench/imports?name=${encodeURIComponent(file.name)}`, {
			method: 'PUT',
			// Said here, since a browser knows no type for a database, and without one the body is not passed on.
			headers: { 'content-type': 'application/octet-stream' },
			body: file
		})
		// A look at it tells at once whether it can be read at all.
		const look = given.ok ? await send('POST', `/bench/imports/${given.value.id}`, { kind: 'inspect' }) : given
		this.busy = ''
		if (!given.ok) this.wrong = given.refusal.message
		else if (!look.ok) this.wrong = look.refusal.message
		else await goto(`/bench/${this.#app()}/sources/${given.value.id}${again === undefined ? '' : `?into=${again}`}`)
	}
}
