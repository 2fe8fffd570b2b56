import { expect, test } from 'vitest'
import { FUNCTION_NOTES } from '$lib/core/formula/functions/table.ts'

/** `npx vitest run tests/unit/function-docs.test.ts -u` writes the page anew. */
test('the page of functions is made from their entries', async () => {
	await expect(writePage()).toMatchFileSnapshot('../../docs/FUNCTIONS.md')
})

function writePage(): string {
	const families = [...new Set(FUNCTION_NOTES.map((note) => note.family))]
	const sections = families.map((family) => {
		const notes = FUNCTION_NOTES.filter((note) => note.family === family)
		const rows = notes.toSorted((a, b) => a.name.localeCompare(b.name)).map(writeRow)
		return [
			`## ${family[0]?.toUpperCase()}${family.slice(1)}`,
			'',
			'| function | gives | for instance |',
			'| --- | --- | --- |',
			...rows
		].join('\n')
	})
	const head = `# Functions\n\n${FUNCTION_NOTES.length} of them. A part in square brackets may be left out. FORMULAS.md says how formulas are written.`
	return [head, ...sections].join('\n\n') + '\n'
}

function writeRow({ signature, doc, examples }: (typeof FUNCTION_NOTES)[number]): string {
	const shown = examples.map(([formula, shows]) => `\`${formula}\` → ${shows}`).join('<br>')
	return `| \`${signature}\` | ${doc} | ${shown} |`.replaceAll('  ', ' ')
}
