/** The word of its own by which an app is found. */
import { AppError } from '$lib/core/app-error.ts'
import { writeHistory } from '../history/history.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'

const SET = `UPDATE app SET word = @word WHERE id = @app`
const BY_WORD = `SELECT id FROM app WHERE word = ?`
const OF_APP = `SELECT word FROM app WHERE id = ?`

/** As it is typed and read aloud: small letters, digits, strokes between. */
const SOUND = /^[a-z0-9]+(-[a-z0-9]+)*$/
const MOST = 40

export function wordOf(store: Store, { app }: { app: number }): string {
	return store.pluck<string | null>(OF_APP, app) ?? ''
}

/** The number of the app that has the word; null for none. */
export function appByWord(store: Store, { word }: { word: string }): number | null {
	return store.pluck<number>(BY_WORD, word.toLowerCase()) ?? null
}

/** Gives an app its word, or takes it away where it is blank. */
export function setWord(store: Store, { app, word: typed, actor, now }: ByActor & { app: number; word: string }): void {
	refuseUnlessBuilder(store, actor)
	const word = typed.trim().toLowerCase()
	if (word !== '' && (!SOUND.test(word) || word.length > MOST))
		throw new AppError(
			'invalid',
			`Its word is written in small letters, digits and strokes: harbour-office. At most ${MOST} signs.`
		)
	const taken = word === '' ? null : appByWord(store, { word })
	if (taken === app || (word === '' && wordOf(store, { app }) === '')) return
	if (taken !== null) throw new AppError('conflict', `"${word}" is the word of another app. Take a different one.`)
	store.prepare(SET).run({ app, word: word === '' ? null : word })
	writeHistory(store, {
		...{ at: now, person: actor.person, through: 'Release', kind: 'word of app', table: null, row: null },
		body: { app, word }
	})
}
