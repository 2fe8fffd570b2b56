import { attachedKind } from './attached.ts'

export const ink = attachedKind('ink', 'A drawing is drawn, not typed.')
