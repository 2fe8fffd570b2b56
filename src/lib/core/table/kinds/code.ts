import { textKind } from './texts.ts'

/** A code as it is printed on the thing: leading noughts stay. */
export const code = textKind({ name: 'code', max: 200 })
