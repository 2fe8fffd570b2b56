/**
 * Plants faults in the code that decides who sees what, one at a time, and tells how many the tests notice:
 * `npm run mutate -- GROUP`, some minutes for each of its files. What came of a file is kept in `measure/mutants.json` as soon as it is
 * through; from all of them, and the reasons of `measure/mutants-why.json` for faults that widen nothing, `measure/MUTANTS.md` is
 * written, which is all that happens without a group. `npm run mutate -- GROUP again` tries only what lived last time, and files that
 * have changed since.
 */
import { Stryker } from '@stryker-mutator/core'
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'

/** The files of a folder that are tried: all, or those whose names begin so. */
const within = (folder, begin = '') =>
	readdirSync(folder)
		.filter((name) => name.startsWith(begin) && name.endsWith('.ts') && !name.endsWith('.test.ts'))
		.map((name) => `${folder}/${name}`)
const rows = (...names) => names.map((name) => `src/lib/server/rows/${name}.ts`)
const rights = (...names) => names.map((name) => `src/lib/server/rights/${name}.ts`)
const unit = (...names) => names.map((name) => `tests/unit/${name}.test.ts`)

/** What is changed, and the tests that are to notice: the quickest first, since the first that fails is enough. */
const GROUPS = {
	access: {
		files: [...within('src/lib/core/access'), 'src/lib/core/sentence/access-line.ts'],
		tests: ['src/lib/core/access/*.test.ts', ...unit('small-faults', 'doors', 'people', 'access-generated')]
	},
	query: {
		files: [...within('src/lib/core/query'), 'src/lib/core/sql/sql.ts', ...rows('text-candidates')],
		tests: unit(
			...[
				'sorted-values',
				'page-plans',
				'filters',
				'small-faults',
				'formula-plans',
				'groups',
				'paging',
				'text-search',
				'order-index',
				'reading',
				'blocks',
				'doors'
			],
			'access-generated'
		)
	},
	compile: {
		files: within('src/lib/core/formula/sql', 'compile'),
		tests: unit(
			...['compiled-forms', 'formula-plans', 'formula-values', 'formula-two-lives'],
			...['small-faults', 'rollups-served', 'own-time-zone']
		)
	},
	signoff: {
		files: [...within('src/lib/core/signoff'), ...within('src/lib/server/signoffs')],
		tests: unit('sign-off-cases', 'small-faults', 'sign-offs', 'message-sight')
	},
	doors: {
		files: rows(
			...['guards', 'stored-cells', 'fill-new', 'change-block', 'change'],
			...['read', 'read-anchors', 'resolve', 'to-wire', 'cursor']
		),
		tests: unit(
			...[
				'reading',
				'writing',
				'guards',
				'rollups',
				'files',
				'new-rows',
				'small-faults',
				'row-rules',
				'on-behalf',
				'blocks',
				'filters',
				'doors',
				'paging',
				'rights-held',
				'structure'
			],
			'access-generated'
		)
	},
	rights: {
		files: [
			...rights('rights-of-actor', 'held-formulas', 'seen-tables', 'roles-held', 'shown-me'),
			'src/lib/server/people/grants.ts'
		],
		tests: unit(
			'rights-held',
			'small-faults',
			'access-epoch',
			'lookout-sight',
			'people',
			'builder-holds',
			'doors',
			'access-generated'
		)
	}
}
const RESULTS = 'measure/mutants.json'
const REASONS = 'measure/mutants-why.json'
/** One that goes on for more than a minute is tried again on its own, since a busy machine may be the reason. */
const NOTICED = new Set(['Killed'])
const LIVED = new Set(['Survived', 'NoCoverage', 'Timeout'])

const again = process.argv.includes('again')
const groups = process.argv.slice(2).filter((word) => word !== 'again')
const unknown = groups.find((group) => !(group in GROUPS))
if (unknown !== undefined) {
	console.error(`There is no group "${unknown}". There are: ${Object.keys(GROUPS).join(', ')}.`)
	process.exit(2)
}

const results = read(RESULTS)
for (const group of groups) {
	const { files, tests } = GROUPS[group]
	const before = results[group] ?? {}
	results[group] = again
		? Object.fromEntries(files.flatMap((file) => (before[file] ? [[file, before[file]]] : [])))
		: {}
	for (const file of files) {
		const known = results[group][file]
		if (known?.of === stamp(file).of && known.lived.length === 0) continue
		results[group][file] = known?.of === stamp(file).of ? await tryAgain(file, tests, known) : await tryAll(file, tests)
		writeFileSync(RESULTS, `${JSON.stringify(results, null, '\t')}\n`)
	}
}
writeFileSync('measure/MUTANTS.md', toText(results, read(REASONS)))

function read(file) {
	return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {}
}

async function tryAll(file, tests) {
	const mutants = await mutate([file], tests)
	const noticed = mutants.filter(({ status }) => NOTICED.has(status)).length
	return { ...stamp(file), noticed, lived: livedOf(mutants) }
}

/** What lived is tried once more; what else lies within the same lines is tried with it and counted as before. */
async function tryAgain(file, tests, before) {
	const places = before.lived.map(({ at, to }) => `${file}:${at.split(':')[0]}-${to}`)
	const tried = livedOf(await mutate([...new Set(places)], tests)).filter(({ endless }) => !endless)
	const still = new Set(tried.map(({ at, what }) => `${at} ${what}`))
	const lived = before.lived.filter(({ at, what }) => still.has(`${at} ${what}`))
	return { ...stamp(file), noticed: before.noticed + before.lived.length - lived.length, lived }
}

/** When, and of what code: so that old results are not taken for those of changed code. */
function stamp(file) {
	const of = createHash('sha256').update(readFileSync(file)).digest('hex').slice(0, 16)
	return { on: new Date().toISOString().slice(0, 10), of }
}

async function mutate(places, tests) {
	process.env.MUTANT_TESTS = tests.join(',')
	// A few generated scenarios and formulas each time: what lives through them is looked at, and tested by a test of its own.
	process.env.TIN_SHED_SCENARIOS = '6'
	process.env.TIN_SHED_FORMULAS = '400'
	const stryker = new Stryker({
		mutate: places,
		testRunner: 'vitest',
		vitest: { configFile: 'vite.mutants.config.ts', related: false },
		plugins: ['@stryker-mutator/vitest-runner'],
		coverageAnalysis: 'perTest',
		// Made once, as the module is read: to try each would mean to start anew each time.
		ignoreStatic: true,
		// What is said where a fault of the program itself is met is nobody's to see.
		mutator: { excludedMutations: ['StringLiteral', 'Regex'] },
		concurrency: Number(process.env.MUTATE_AT_ONCE ?? 2),
		timeoutMS: 60_000,
		reporters: ['progress-append-only'],
		disableTypeChecks: false,
		checkers: [],
		allowEmpty: true,
		tempDirName: '.stryker-tmp',
		ignorePatterns: ['build', 'test-results', 'docs', '!.svelte-kit', '.svelte-kit/output']
	})
	return stryker.runMutationTest()
}

function livedOf(mutants) {
	return mutants
		.filter(({ status }) => LIVED.has(status))
		.map(({ location, mutatorName, replacement, status }) => ({
			at: `${location.start.line}:${location.start.column}`,
			to: location.end.line,
			what: `${mutatorName}: ${(replacement ?? '').replace(/\s+/g, ' ').slice(0, 80)}`,
			...(status === 'NoCoverage' ? { untested: true } : {}),
			...(status === 'Timeout' ? { endless: true } : {})
		}))
}

function toText(all, reasons) {
	const files = (group) => Object.entries(all[group])
	const sum = (group, count) => files(group).reduce((total, [, result]) => total + count(result), 0)
	const rows = Object.keys(all).map((group) => {
		const noticed = sum(group, (result) => result.noticed)
		const tried = noticed + sum(group, (result) => result.lived.length)
		const last = files(group).reduce((latest, [, { on }]) => (on > latest ? on : latest), '')
		return `| ${group} | ${tried} | ${noticed} | **${((100 * noticed) / Math.max(1, tried)).toFixed(1)} %** | ${last} |`
	})
	const toLine = (file, { at, what, untested, endless }) => {
		const known = reasons[`${file}:${at.split(':')[0]} ${what}`]
		const reason = known ?? (untested ? 'no test comes here' : endless ? 'does not end' : '')
		return `- \`${file}:${at}\` ${what.replaceAll('`', "'")}${reason === '' ? '' : ` — ${reason}`}`
	}
	const lists = Object.keys(all).map((group) => {
		const lines = files(group).flatMap(([file, { lived }]) => lived.map((each) => toLine(file, each)))
		return `## ${group}: what lived\n\n${lines.join('\n') || 'Nothing.'}\n`
	})
	return `# Faults planted

Made by \`npm run mutate\` (Stryker, its Vitest runner): each fault is one small change of the code, made alone; it is noticed if a test fails. Texts and patterns are left as they are, and so is what is made once as a module is read. The aim is 85 % in each group.

| group | faults | noticed | share | on |
| --- | --- | --- | --- | --- |
${rows.join('\n')}

${lists.join('\n')}`
}
