/**
 * The draft of an app while a builder works on it: every change is saved at once, as edits, so that others can work on it too;
 * every change can be undone; and what could not be saved is said and kept.
 */
import { invalidate } from '$app/navigation'
import { navigating } from '$app/state'
import { getContext, setContext } from 'svelte'
import type { AppDocument } from '$lib/core/app/document.ts'
import { applyEdits, type EditConflict } from '$lib/core/app/edits/apply-edits.ts'
import type { Edit } from '$lib/core/app/edits/edit.ts'
import { editsBetween } from '$lib/core/app/edits/edits-between.ts'
import { insist, mergeEdits } from '$lib/core/app/edits/merge-edits.ts'
import type { SavedDraft } from '$lib/core/requests/bench.ts'
import { send, type Refusal } from '../send.ts'

const KEY = Symbol('draft')
const MOST_STEPS = 100

type Steps = readonly (readonly Edit[])[]

export class DraftState {
	readonly app: number
	// Set by the constructor before anybody reads it.
	document = $state.raw<AppDocument>() as AppDocument
	/** Why the last change was not saved. */
	wrong = $state('')
	ahead = $state(false)
	/** Of the draft as the server has it. */
	version = $state(0)
	/** What this builder changed where another did so meanwhile: the other's stands until this one says so. */
	unplaced = $state.raw<readonly EditConflict[]>([])
	/** Edits that take back what was done, and that do again what was taken back; the last first to go. */
	private past = $state.raw<Steps>([])
	private future = $state.raw<Steps>([])
	/** Edits that are on their way, or wait for those before them. */
	private waiting = $state.raw<readonly Edit[]>([])
	private sending = $state(false)

	constructor(app: number, draft: { version: number; document: AppDocument; ahead: boolean }) {
		this.app = app
		this.document = draft.document
		this.version = draft.version
		this.ahead = draft.ahead
	}

	get canUndo(): boolean {
		return this.past.length > 0
	}

	get canRedo(): boolean {
		return this.future.length > 0
	}

	get saving(): boolean {
		return this.sending
	}

	/** Whether something would be lost with the page. */
	get isUnsaved(): boolean {
		return this.waiting.length > 0
	}

	change(document: AppDocument): void {
		const edits = editsBetween(this.document, document)
		if (edits.length === 0) return
		this.past = [...this.past.slice(-MOST_STEPS), editsBetween(document, this.document)]
		this.future = []
		this.put(document, edits)
	}

	undo(): void {
		const [steps, back] = this.step(this.past)
		this.past = steps
		if (back) this.future = [...this.future, back]
	}

	redo(): void {
		const [steps, back] = this.step(this.future)
		this.future = steps
		if (back) this.past = [...this.past, back]
	}

	/** Takes what another builder did meanwhile. */
	async lookAgain(): Promise<void> {
		if (this.sending || this.waiting.length > 0) return
		await this.save([])
		await this.saveAll()
	}

	/** Puts what this builder changed in the place of what another did, or lets it go. */
	settle(conflict: EditConflict, mine: boolean): void {
		const applied = mine ? applyEdits(this.document, [insist(this.document, conflict)]) : undefined
		if (applied && !applied.ok) {
			this.wrong = 'The screen that it stood on is gone. Undo that, or write it on another screen.'
			return
		}
		this.unplaced = this.unplaced.filter((each) => each !== conflict)
		if (applied) this.change(applied.document)
	}

	/** Goes one step along; gives the steps that are left and the edits that go back again. */
	private step(steps: Steps): readonly [Steps, readonly Edit[] | undefined] {
		const edits = steps.at(-1)
		if (!edits) return [steps, undefined]
		const before = this.document
		const applied = applyEdits(before, edits)
		if (applied.ok) this.put(applied.document, edits)
		else this.wrong = 'Another builder has changed this place since, so it stays as it is now.'
		return [steps.slice(0, -1), applied.ok ? editsBetween(applied.document, before) : undefined]
	}

	private put(document: AppDocument, edits: readonly Edit[]): void {
		this.document = document
		this.ahead = true
		this.waiting = [...this.waiting, ...edits]
		if (!this.sending) void this.saveAll()
	}

	/** One save after the other, each with all that was changed since. */
	private async saveAll(): Promise<void> {
		while (this.waiting.length > 0) if (!(await this.save(this.waiting))) break
	}

	/** Whether what waits can be sent now. */
	private async save(edits: readonly Edit[]): Promise<boolean> {
		this.sending = true
		const answer = await send('PATCH', `/bench/${this.app}/draft`, { version: this.version, edits })
		this.sending = false
		if (answer.ok) {
			this.waiting = this.waiting.slice(edits.length)
			this.take(answer.value)
			this.wrong = ''
		} else {
			const theirs = draftOf(answer.refusal)
			this.wrong = theirs ? '' : answer.refusal.message
			if (!theirs) return false
			this.take(theirs)
		}
		void this.readAnew()
		return true
	}

	/**
	 * Whoever is on their way to another page would be kept from it, so that comes first; and what could not be read anew is no reason
	 * to keep back the changes that wait.
	 */
	private async readAnew(): Promise<void> {
		await navigating.complete?.catch(() => undefined)
		await invalidate('app:draft').catch(() => undefined)
	}

	/** Goes on from the draft as the server has it: what waits is put into it as far as it goes. */
	private take({ version, document }: SavedDraft): void {
		this.version = version
		if (!document) return
		const merged = mergeEdits(document, this.waiting)
		this.document = merged.document
		this.waiting = merged.placed
		this.unplaced = [...this.unplaced, ...merged.unplaced]
	}
}

/** What the server holds, where it refused because of another builder. */
function draftOf({ code, details }: Refusal): SavedDraft | undefined {
	// Sent along with this code by the writer of drafts alone, as its schema has it.
	return code === 'conflict' && 'document' in details ? (details as unknown as SavedDraft) : undefined
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
