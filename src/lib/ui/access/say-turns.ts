import type { PersonCount } from '$lib/core/requests/access.ts'

/** What lines that are not saved yet turn for people, in one or a few sentences. */
export function sayTurns(people: readonly PersonCount[]): string {
	return [sayRows(people), ...sayColumns(people)].join(' ')
}

function sayRows(people: readonly PersonCount[]): string {
	const gain = people.filter((person) => person.seen > person.before).length
	const lose = people.filter((person) => person.seen < person.before).length
	if (gain === 0 && lose === 0) return 'Nobody gains or loses a row.'
	return `${gain} ${gain === 1 ? 'person gains' : 'people gain'} rows, ${lose} ${lose === 1 ? 'loses' : 'lose'} some.`
}

/** How many people get columns that they saw nowhere before, or lose some altogether. */
function sayColumns(people: readonly PersonCount[]): string[] {
	// Who sees no row sees no column either; that is told by the rows.
	const seeing = people.filter((person) => person.seen > 0 && person.before > 0)
	const gained = seeing.map((person) => without(person.withheldBefore, person.withheld))
	const lost = seeing.map((person) => without(person.withheld, person.withheldBefore))
	return [...say('get', gained), ...say('lose', lost)]
}

function say(verb: 'get' | 'lose', columns: readonly (readonly string[])[]): string[] {
	const people = columns.filter((each) => each.length > 0).length
	if (people === 0) return []
	const names = [...new Set(columns.flat())].join(', ')
	return [`${people} ${people === 1 ? `person ${verb}s` : `people ${verb}`} ${names}.`]
}

/** Those of the first list that do not stand in the second. */
export function without(names: readonly string[], others: readonly string[]): string[] {
	return names.filter((name) => !others.includes(name))
}
