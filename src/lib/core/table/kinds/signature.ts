import { attachedKind } from './attached.ts'

export const signature = attachedKind('signature', 'A signature is written by hand, not typed.')
