/**
 * A file, photo, drawing or signature that lies in a cell. The cell keeps what is known of it as JSON text; its bytes lie
 * beside the database, under their SHA-256.
 */
import type { Column } from '../model/table.ts'
import { ownJson } from '../text/own-json.ts'

export interface Attachment {
	/** As it was called where it came from; only ever shown, never part of a path. */
	readonly name: string
	/** Its media type, found from its content. */
	readonly type: string
	/** In bytes. */
	readonly size: number
	/** SHA-256 of its content, as hex. */
	readonly sha: string
}

export const ATTACHED_TYPES = ['photo', 'file', 'ink', 'signature'] as const
export type AttachedType = (typeof ATTACHED_TYPES)[number]

/** The most that one file may hold, in bytes. */
export const MOST_BYTES = 25 * 1024 * 1024

const PICTURES: ReadonlySet<string> = new Set(['image/jpeg', 'image/png', 'image/webp', 'image/gif'])

/** Whether cells of the column hold a file: a photo, a drawing, a signature or any other. */
export function holdsFile(column: Pick<Column, 'type'> | { readonly type: string }): boolean {
	return (ATTACHED_TYPES as readonly string[]).includes(column.type)
}

/** Pictures that every browser draws and that can run nothing; anything else is only ever offered for saving. */
export function isPicture(type: string): boolean {
	return PICTURES.has(type)
}

/** A file as its cell keeps it: JSON text with name, type, size and digest. */
export function toStoredFile({ name, type, size, sha }: Attachment): string {
	return JSON.stringify({ name, type, size, sha })
}

/** The file that a cell keeps; the opposite of `toStoredFile`. */
export function fromStoredFile(stored: string): Attachment {
	return ownJson<Attachment>(stored)
}

/** A name that can be shown and offered for saving: no folders, no signs that steer, not endless. */
export function plainFileName(name: string): string {
	const last = name.split(/[/\\]/).at(-1) ?? ''
	// eslint-disable-next-line no-control-regex -- these are the signs that are to go
	const plain = last.replace(/[\u0000-\u001f\u007f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, '').trim()
	return plain === '' ? 'file' : plain.slice(0, 120)
}

/** What is wrong with putting a file into such a column, in one sentence; undefined if it fits. */
export function misfitOf(column: Pick<Column, 'type' | 'name'>, type: string): string | undefined {
	if (!holdsFile(column)) return `${column.name} holds no files.`
	if (column.type === 'file' || isPicture(type)) return undefined
	return `${column.name} takes a picture (JPEG, PNG, WebP or GIF), and this file is none by its content.`
}

/** A size as people read it: `412 kB`, `1.3 MB`. */
export function showSize(bytes: number): string {
	if (bytes < 1000) return `${bytes} bytes`
	return bytes < 1_000_000 ? `${Math.round(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`
}
