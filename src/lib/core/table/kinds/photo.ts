import { attachedKind } from './attached.ts'

export const photo = attachedKind('photo', 'Photos are taken or chosen, not typed.')
