import { textKind } from './texts.ts'

export const longText = textKind({
	name: 'long text',
	max: 100_000,
	normalize: (value) => value.replaceAll('\r\n', '\n')
})
