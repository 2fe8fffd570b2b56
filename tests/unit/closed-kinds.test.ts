/**
 * Adding a kind to a union is an error wherever the program must know of it, until it does: the compiler is asked, with a
 * further kind written in.
 */
import { describe, expect, test } from 'vitest'
import { REGISTRIES, written } from '../support/further-kinds.ts'
import { typeCheck } from '../support/type-check.ts'

describe.each(REGISTRIES)('$what', ({ files, added, whole }) => {
	test('is asked for in each file that must know of it, and the files are sound once it is there', () => {
		const asked = typeCheck(files, written(added))
		expect(files.filter((file) => !asked.some((each) => each.startsWith(`${file}: `)))).toEqual([])
		expect(typeCheck(files, written(whole))).toEqual([])
	})
})
