/**
 * The draft of an app while a builder works on it: every change is saved at once, every change can be undone, and what
 * could not be saved is said and kept.
 */
import { invalidate } from '$app/navigation'
import { getContext, setContext } from 'svelte'
import type { AppDocument } from '$lib/core/app/document.ts'
import { send } from '../send.ts'

const KEY = Symbol('draft')
const MOST_STEPS = 100

export class DraftState {
	readonly app: number
	// Set by the constructor before anybody reads it.
	document = $state.raw<AppDocument>() as AppDocument
	/** Why the last change was not saved. */
	wrong = $state('')
	ahead = $state(false)
	/** Of the draft as the server has it. */
	version = $state(0)
	private past = $state.raw<readonly AppDocument[]>([])
	private queue: Promise<void> = Promise.resolve()
	/** Changes that are on their way, or wait for those before them. */
	private unsaved = $state(0)

	constructor(app: number, draft: { version: number; document: AppDocument; ahead: boolean }) {
		this.app = app
		this.document = draft.document
		this.version = draft.version
		this.ahead = draft.ahead
	}

	get canUndo(): boolean {
		return this.past.length > 0
	}

	get saving(): boolean {
		return this.unsaved > 0
	}

	change(document: AppDocument): void {
		this.past = [...this.past.slice(-MOST_STEPS), this.document]
		this.put(document)
	}

	undo(): void {
		const last = this.past[this.past.length - 1]
		if (!last) return
		this.past = this.past.slice(0, -1)
		this.put(last)
	}

	private put(document: AppDocument): void {
		this.document = document
		this.ahead = true
		this.unsaved++
		// One save after the other, each on top of the version that the one before it made.
		this.queue = this.queue.then(() => this.save(document))
	}

	private async save(document: AppDocument): Promise<void> {
		const answer = await send('PUT', `/bench/${this.app}/draft`, { version: this.version, document })
		this.unsaved--
		this.wrong = answer.ok ? '' : answer.refusal.message
		if (answer.ok) this.version = answer.value
		// What could not be read anew is no reason to keep back the changes that wait.
		await invalidate('app:draft').catch(() => undefined)
	}
}

/** For the pages and parts below this one. */
export function provideDraft(draft: DraftState): void {
	setContext(KEY, draft)
}

export function useDraft(): DraftState {
	return getContext<DraftState>(KEY)
}

/** A fresh id for a line or a screen. */
export function newId(): string {
	return crypto.randomUUID().slice(0, 8)
}
