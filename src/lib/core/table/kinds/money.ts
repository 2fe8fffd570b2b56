import { CURRENCY_MARKS } from './currency.ts'
import { numberKind } from './numbers.ts'

/** Kept in minor units. */
export const money = numberKind({ name: 'money', strip: CURRENCY_MARKS })
