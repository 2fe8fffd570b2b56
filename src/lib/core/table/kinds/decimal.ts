import { grouped, numberKind } from './numbers.ts'
import { withUnit } from './whole-number.ts'

export const decimal = numberKind({
	name: 'decimal',
	show: (value, column) => withUnit(grouped(value, column.places), column.unit)
})
