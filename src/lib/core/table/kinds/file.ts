import { attachedKind } from './attached.ts'

export const file = attachedKind('file', 'Files are chosen, not typed.')
