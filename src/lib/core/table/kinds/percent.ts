import { numberKind } from './numbers.ts'

/** Formulas see the share: 12.5 % is 0.125. Typed with the sign or as the share. */
export const percent = numberKind({ name: 'percent', strip: /\s*%\s*$/, per: 100 })
