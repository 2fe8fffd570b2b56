/**
 * What was typed into forms and not sent yet, kept on this device under the name of who typed it: the next person on the same
 * tablet neither sees it nor sends it. Signing out drops one's own, after saying so. In IndexedDB, which has room for photos.
 */
import { createStore, del, delMany, get, keys, set, type UseStore } from 'idb-keyval'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import type { CellDraft } from '../../cells/cell-draft.ts'

/** What was typed into one row, by column. */
export type RowDraft = Readonly<Record<number, CellDraft>>

export interface FormDraft {
	readonly cells: RowDraft
	/** Rows that go in with it, by the line that asks for them. */
	readonly items: Readonly<Record<string, readonly RowDraft[]>>
}

/** `owner`: as the page says (`draftsOf`). */
export function draftKey(owner: string, path: string, line: string): string {
	return `form ${owner} ${path} ${line}`
}

export function readDraftOf(key: string): Promise<FormDraft | undefined> {
	return get<FormDraft>(key, store())
}

export function keepDraft(key: string, draft: FormDraft): Promise<void> {
	return set(key, draft, store())
}

export function dropDraft(key: string): Promise<void> {
	return del(key, store())
}

/** What somebody sent last with a form, for the entries that remember it. */
export function readLast(owner: string, path: string, line: string): Promise<RowDraft | undefined> {
	return get<RowDraft>(lastKey(owner, path, line), store())
}

/** Keeps of what was sent what the form's entries remember. */
export async function keepLast(
	owner: string,
	path: string,
	{ id, pages }: Pick<Extract<ShownLine, { kind: 'form' }>, 'id' | 'pages'>,
	sent: RowDraft
): Promise<void> {
	const remembered = pages.flatMap(({ parts }) =>
		parts.flatMap((part) => (part.kind === 'entry' && part.remembers ? [part.column.id] : []))
	)
	const kept = remembered.flatMap((column) => (sent[column] ? [[column, sent[column]] as const] : []))
	if (remembered.length > 0) await set(lastKey(owner, path, id), Object.fromEntries(kept), store())
}

function lastKey(owner: string, path: string, line: string): string {
	return `last ${owner} ${path} ${line}`
}

/** How many forms somebody has begun on this device and not sent. */
export async function countDrafts(owner: string): Promise<number> {
	return (await keysOf('form', owner)).length
}

/** Drops all that is somebody's own. */
export async function dropDrafts(owner: string): Promise<void> {
	await delMany([...(await keysOf('form', owner)), ...(await keysOf('last', owner))], store())
	for (const key of Object.keys(localStorage)) if (key.startsWith(FORMER)) localStorage.removeItem(key)
}

/** Drafts were kept in the page's small store once. */
const FORMER = 'tin-shed form '

let opened: UseStore | undefined

function store(): UseStore {
	return (opened ??= createStore('tin-shed', 'forms'))
}

async function keysOf(what: 'form' | 'last', owner: string): Promise<string[]> {
	const all = await keys<string>(store())
	return all.filter((key) => key.startsWith(`${what} ${owner} `))
}
