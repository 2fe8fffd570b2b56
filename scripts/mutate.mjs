/**
 * Plants faults in the code that decides who sees what, one at a time, and tells how many the tests notice:
 * `npm run mutate -- GROUP`, some minutes each. Each group's result is kept in `measure/mutants.json`; from all of them, and the
 * reasons of `measure/mutants-why.json` for faults that widen nothing, `measure/MUTANTS.md` is written, which is all that
 * happens without a group.
 */
import { Stryker } from '@stryker-mutator/core'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'

const rows = (...names) => names.map((name) => `src/lib/server/rows/${name}.ts`)
const people = (...names) => names.map((name) => `src/lib/server/people/${name}.ts`)
const unit = (...names) => names.map((name) => `tests/unit/${name}.test.ts`)

/** What is changed, and the tests that are to notice: the quickest first, since the first that fails is enough. */
const GROUPS = {
	access: {
		files: ['src/lib/core/access/*.ts'],
		tests: ['src/lib/core/access/*.test.ts', ...unit('small-faults', 'doors', 'people', 'access-generated')]
	},
	query: {
		files: ['src/lib/core/query/*.ts'],
		tests: unit('small-faults', 'doors', 'paging', 'groups', 'order-index', 'text-search', 'access-generated')
	},
	compile: {
		files: ['src/lib/core/formula/compile*.ts'],
		tests: unit('small-faults', 'doors', 'formula-two-lives', 'kept-totals', 'own-time-zone', 'formula-values')
	},
	signoff: {
		files: ['src/lib/core/signoff/*.ts', 'src/lib/server/signoffs/*.ts'],
		tests: ['src/lib/core/signoff/*.test.ts', ...unit('small-faults', 'sign-offs', 'message-sight')]
	},
	doors: {
		files: rows('read', 'change', 'change-block', 'guards', 'fill-new', 'stored-cells', 'text-candidates'),
		tests: unit('small-faults', 'doors', 'row-rules', 'paging', 'text-search', 'on-behalf', 'access-generated')
	},
	rights: {
		files: people('rights-of-actor', 'held-formulas', 'seen-tables', 'roles-held', 'shown-me', 'grants'),
		tests: unit('small-faults', 'doors', 'builder-holds', 'people', 'lookout-sight', 'access-epoch', 'access-generated')
	}
}
const RESULTS = 'measure/mutants.json'
const REASONS = 'measure/mutants-why.json'
const NOTICED = new Set(['Killed', 'Timeout'])
const LIVED = new Set(['Survived', 'NoCoverage'])

const groups = process.argv.slice(2)
const unknown = groups.find((group) => !(group in GROUPS))
if (unknown !== undefined) {
	console.error(`There is no group "${unknown}". There are: ${Object.keys(GROUPS).join(', ')}.`)
	process.exit(2)
}

const results = read(RESULTS)
for (const group of groups) {
	results[group] = await mutate(GROUPS[group])
	writeFileSync(RESULTS, `${JSON.stringify(results, null, '\t')}\n`)
}
writeFileSync('measure/MUTANTS.md', toText(results, read(REASONS)))

function read(file) {
	return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {}
}

async function mutate({ files, tests }) {
	process.env.MUTANT_TESTS = tests.join(',')
	// A few generated scenarios each time: what lives through them is looked at, and tested by a test of its own.
	process.env.TIN_SHED_SCENARIOS = '12'
	const stryker = new Stryker({
		mutate: [...files, '!**/*.test.ts'],
		testRunner: 'vitest',
		vitest: { configFile: 'vite.mutants.config.ts' },
		plugins: ['@stryker-mutator/vitest-runner'],
		coverageAnalysis: 'perTest',
		// Made once, as the module is read: to try each would mean to start anew each time.
		ignoreStatic: true,
		// What is said where a fault of the program itself is met is nobody's to see.
		mutator: { excludedMutations: ['StringLiteral', 'Regex'] },
		concurrency: Number(process.env.MUTATE_AT_ONCE ?? 2),
		timeoutMS: 20_000,
		reporters: ['progress-append-only'],
		disableTypeChecks: false,
		checkers: [],
		allowEmpty: true,
		tempDirName: '.stryker-tmp',
		ignorePatterns: ['build', 'test-results', 'docs', '!.svelte-kit', '.svelte-kit/output']
	})
	const mutants = await stryker.runMutationTest()
	const count = (statuses) => mutants.filter(({ status }) => statuses.has(status)).length
	const lived = mutants
		.filter(({ status }) => LIVED.has(status))
		.map(({ fileName, location, mutatorName, replacement, status }) => ({
			at: `${fileName.replace(`${process.cwd()}/`, '')}:${location.start.line}:${location.start.column}`,
			what: `${mutatorName}: ${(replacement ?? '').replace(/\s+/g, ' ').slice(0, 80)}`,
			...(status === 'NoCoverage' ? { untested: true } : {})
		}))
	return { on: new Date().toISOString().slice(0, 10), noticed: count(NOTICED), lived }
}

function toText(all, reasons) {
	const rows = Object.entries(all).map(([group, { on, noticed, lived }]) => {
		const score = ((100 * noticed) / Math.max(1, noticed + lived.length)).toFixed(1)
		return `| ${group} | ${noticed + lived.length} | ${noticed} | **${score} %** | ${on} |`
	})
	const lists = Object.entries(all).map(([group, { lived }]) => {
		const lines = lived.map(({ at, what, untested }) => {
			const reason = reasons[`${at.replace(/:\d+$/, '')} ${what}`] ?? (untested ? 'no test comes here' : '')
			return `- \`${at}\` ${what.replaceAll('`', "'")}${reason === '' ? '' : ` — ${reason}`}`
		})
		return `## ${group}: what lived\n\n${lines.join('\n') || 'Nothing.'}\n`
	})
	return `# Faults planted

Made by \`npm run mutate\` (Stryker, its Vitest runner): each fault is one small change of the code, made alone; it is noticed if a test fails. Texts and patterns are left as they are, and so is what is made once as a module is read. The aim is 85 % in each group.

| group | faults | noticed | share | on |
| --- | --- | --- | --- | --- |
${rows.join('\n')}

${lists.join('\n')}`
}
