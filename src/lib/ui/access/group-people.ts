/** People for whom the lines come to the same stand together. */
import type { PersonCount } from '$lib/core/requests/access.ts'

export interface PeopleGroup extends Omit<PersonCount, 'person' | 'name'> {
	/** Their names. */
	readonly people: readonly string[]
}

export function groupPeople(counts: readonly PersonCount[]): PeopleGroup[] {
	const groups = new Map<string, PeopleGroup>()
	for (const { person: _person, name, ...same } of counts) {
		const key = JSON.stringify(same)
		groups.set(key, { ...same, people: [...(groups.get(key)?.people ?? []), name] })
	}
	return [...groups.values()]
}
