import { numberKind } from './numbers.ts'

export const decimal = numberKind({ name: 'decimal' })
