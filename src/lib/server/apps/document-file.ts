/** The document of an app as a file: read from one that may have been written by hand, compared with the draft, put into it. */
import { compareVersions } from '$lib/core/app/compare-versions.ts'
import { parseApp, type AppDocument } from '$lib/core/app/document.ts'
import { editsBetween } from '$lib/core/app/edits/edits-between.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { ComparedDocument, SavedDraft } from '$lib/core/requests/bench.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { listTables, vocabularyOf } from '../review/bench.ts'
import type { Store } from '../store/store.ts'
import { readDraft, saveDraft } from './apps.ts'
import { whyUnreadable } from './why-unreadable.ts'

export interface GivenDocument extends ByActor {
	readonly app: number
	/** JSON, as the published schema has it. */
	readonly text: string
}

/** What putting it in would change, in sentences, by the names that this builder holds. */
export function compareDocument(store: Store, { app, text, actor, now }: GivenDocument): ComparedDocument {
	refuseUnlessBuilder(store, actor)
	const names = vocabularyOf(store, listTables(store, { actor, now }))
	const document = readGiven(text)
	return { parts: compareVersions(readDraft(store, app).document, document, names), document }
}

/** Makes it the draft, by edits, as a page would send them. */
export function putDocument(store: Store, { app, text, actor, now }: GivenDocument): SavedDraft {
	const { version, document } = readDraft(store, app)
	return saveDraft(store, { app, version, edits: editsBetween(document, readGiven(text)), actor, now })
}

/** Refused with the place of what cannot be read, as the file has it. */
function readGiven(text: string): AppDocument {
	try {
		return parseApp(text)
	} catch (thrown) {
		throw new AppError('invalid', `This is no document of an app: ${whyUnreadable(thrown)}`)
	}
}
