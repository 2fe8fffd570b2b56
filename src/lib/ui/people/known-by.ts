/** What a person is known by on the sheet of people: the label of their row, and their address. */
import { cellKey } from '$lib/core/query/wire.ts'
import type { PeopleSheet, ShownPerson } from '$lib/core/requests/people.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { showCell } from '$lib/core/requests/show-cell.ts'

type Columns = Pick<PeopleSheet, 'columns' | 'label'>

/** Empty where the name is not seen. */
export function personName({ columns, label }: Columns, person: ShownPerson): string {
	return cellText(
		columns.find((column) => column.id === label),
		person
	)
}

/** Empty where no address is seen. */
export function personAddress({ columns }: Columns, person: ShownPerson): string {
	return cellText(
		columns.find((column) => column.type === 'email'),
		person
	)
}

function cellText(column: ShownColumn | undefined, person: ShownPerson): string {
	return column ? showCell(column, person.row.cells[cellKey(column.id)]) : ''
}
