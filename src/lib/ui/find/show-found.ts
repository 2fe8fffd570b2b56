/** How what was found reads: a row as its list shows it, anything else by its name and what it is. */
import type { Found } from '$lib/core/requests/find.ts'
import { lookOf, nameOf, smallText } from '../lines/list/row-look.ts'

export interface ShownFound {
	readonly title: string
	readonly where: string
	readonly href: string
}

const WORDS = { app: 'App', screen: 'Screen', table: 'Table', column: 'Column', person: 'Person' } as const

export function showFound(found: Found): ShownFound {
	const { where, href } = found
	if (found.kind !== 'row') {
		const kind = WORDS[found.kind]
		return { title: found.title, where: where === '' ? kind : `${kind} · ${where}`, href }
	}
	const look = lookOf({ columns: found.columns, groups: null }, [found.row])
	const words = [smallText(look, found.row), where].filter(Boolean).join(' · ')
	return { title: nameOf(look, found.row), where: words, href }
}
