<script lang="ts">
	/** Who may see and change one table: its lines, and what they come to for each person, before they are saved. */
	import { countOf } from '$lib/core/text/count.ts'
	import { invalidateAll } from '$app/navigation'
	import { untrack } from 'svelte'
	import { ACCESS_LINE } from '$lib/core/sentence/access-line.ts'
	import type { LineValue } from '$lib/core/sentence/types.ts'
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import type { AccessSheet, ProposedAccess } from '$lib/core/requests/access.ts'
	import AccessNav from './AccessNav.svelte'
	import AccessExamples from './AccessExamples.svelte'
	import { groupPeople } from './group-people.ts'
	import { showCounted } from '../count.ts'
	import { send } from '../send.ts'
	import AddLine from '../sentences/AddLine.svelte'
	import { newId } from '../bench/draft.svelte.ts'
	import ProposedLines from './ProposedLines.svelte'
	import SentenceLine from '../sentences/SentenceLine.svelte'
	import WhySeen from './WhySeen.svelte'

	type Props = {
		table: BenchTable
		tables: readonly BenchTable[]
		sheet: AccessSheet
		/** What a table without lines could begin with. */
		proposed: readonly ProposedAccess[]
		vocabulary: Vocabulary
		app: number
	}

	let { table, tables, sheet, proposed, vocabulary, app }: Props = $props()

	let lines = $state.raw<readonly LineValue[]>(untrack(() => sheet.lines))
	let preview = $state.raw<AccessSheet>(untrack(() => sheet))
	let past = $state.raw<readonly (readonly LineValue[])[]>([])
	let said = $state('')
	let wrong = $state('')
	let asked = 0

	const dirty = $derived(JSON.stringify(lines) !== JSON.stringify(sheet.lines))
	const gain = $derived(preview.people.filter((person) => person.seen > person.before).length)
	const lose = $derived(preview.people.filter((person) => person.seen < person.before).length)
	/** How many people get columns that they saw nowhere before, or lose some altogether. */
	const columnTurns = $derived(
		preview.people.flatMap((person) => {
			// Who sees no row sees no column either; that is told by the rows.
			if (person.seen === 0 || person.before === 0) return []
			const gained = person.keptBackBefore.filter((name) => !person.keptBack.includes(name))
			const lost = person.keptBack.filter((name) => !person.keptBackBefore.includes(name))
			return gained.length + lost.length > 0 ? [{ gained, lost }] : []
		})
	)
	const turnedColumns = $derived([
		...say(
			'get',
			new Set(columnTurns.flatMap((each) => each.gained)),
			columnTurns.filter((each) => each.gained.length > 0).length
		),
		...say(
			'lose',
			new Set(columnTurns.flatMap((each) => each.lost)),
			columnTurns.filter((each) => each.lost.length > 0).length
		)
	])
	const groups = $derived(groupPeople(preview.people))
	const most = $derived(Math.max(1, ...preview.people.map((person) => person.seen)))

	function change(next: readonly LineValue[]) {
		past = [...past, lines]
		put(next)
	}

	function put(next: readonly LineValue[]) {
		lines = next
		said = ''
		void look()
	}

	/** Asks what the lines as they now stand would come to. */
	async function look() {
		const mine = ++asked
		const answer = await send('POST', `/bench/lines/${table.id}`, { lines })
		if (mine !== asked) return
		wrong = answer.ok ? '' : answer.refusal.message
		if (answer.ok) preview = answer.value
	}

	async function save() {
		// A line that is not finished is refused where it arrives, in words that name it.
		const finished = lines as AccessSheet['lines']
		const answer = await send('PUT', `/bench/lines/${table.id}`, { lines: finished, version: sheet.version })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		said = 'Saved. The lines are in force, in open pages too.'
		await invalidateAll()
	}

	function take(line: LineValue) {
		change([{ ...line, id: newId() }])
	}

	function undo() {
		const last = past[past.length - 1]
		if (!last) return
		past = past.slice(0, -1)
		put(last)
	}

	function onkeydown(event: KeyboardEvent) {
		const typing = /^(INPUT|TEXTAREA|SELECT)$/.test((event.target as HTMLElement).tagName)
		if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || past.length === 0) return
		event.preventDefault()
		event.stopPropagation()
		undo()
	}

	function move(at: number, by: -1 | 1) {
		const to = at + by
		if (to < 0 || to >= lines.length) return
		const next = [...lines]
		const [line] = next.splice(at, 1)
		if (line) next.splice(to, 0, line)
		change(next)
	}

	const issuesOf = (line: LineValue) =>
		Object.fromEntries(
			preview.issues.filter((issue) => issue.line === line['id']).map((issue) => [issue.part, issue.message])
		)

	function say(verb: 'get' | 'lose', columns: ReadonlySet<string>, people: number): string[] {
		if (people === 0) return []
		return [`${people} ${people === 1 ? `person ${verb}s` : `people ${verb}`} ${[...columns].join(', ')}.`]
	}

	function comesTo(line: LineValue): string {
		const found = preview.comesTo.find((each) => each.id === line['id'])
		if (!found) return ''
		if (found.people === 0) return 'nobody holds this role'
		const people = countOf(found.people, 'person', 'people')
		const rows = found.least === found.most ? countOf(found.most, 'row') : `${found.least} to ${found.most} rows each`
		return `${people} · ${rows}`
	}
</script>

<svelte:window onkeydowncapture={onkeydown} />

<div class="bay">
	<AccessNav {tables} {app} at={table.id} />
	<div class="work">
		<header>
			<h1>Who may see and change {table.name}</h1>
			<p class="quiet">
				Nobody can, unless a line below lets them. The lines hold in every app, export, search and link.
			</p>
		</header>
		{#if lines.length === 0 && proposed.length > 0}
			<ProposedLines {proposed} {vocabulary} table={table.id} ontake={take} />
		{/if}
		{#each lines as line, i (line['id'])}
			<SentenceLine
				kind={ACCESS_LINE.kind}
				{line}
				{vocabulary}
				table={table.id}
				number={i + 1}
				issues={issuesOf(line)}
				marked={JSON.stringify(line) !== JSON.stringify(sheet.lines.find((each) => each.id === line['id']))}
				onchange={(next) => change(lines.map((each, j) => (j === i ? next : each)))}
				onremove={() => change(lines.filter((_each, j) => j !== i))}
				onmove={(by) => move(i, by)}
			>
				{#snippet beside()}{comesTo(line)}{/snippet}
			</SentenceLine>
		{/each}
		<AddLine
			kinds={[ACCESS_LINE]}
			{vocabulary}
			table={table.id}
			onadd={(line) =>
				change([...lines, { ...line, id: newId(), table: table.id, role: line['role'] ?? vocabulary.roles[0]?.id }])}
		/>
		{#if wrong}<p class="wrong says-wrong" role="alert">{wrong}</p>{/if}
		<div class="save">
			<p role="status">
				{#if dirty}
					<strong>Unsaved.</strong>
					{gain === 0 && lose === 0
						? 'Nobody gains or loses a row.'
						: `${gain} ${gain === 1 ? 'person gains' : 'people gain'} rows, ${lose} ${lose === 1 ? 'loses' : 'lose'} some.`}
					{turnedColumns.join(' ')}
				{:else}{said || 'What stands here is in force.'}{/if}
			</p>
			<button class="btn" onclick={undo} disabled={past.length === 0}>Undo</button>
			<button class="btn main" onclick={save} disabled={!dirty || preview.issues.length > 0}>Save lines</button>
		</div>
		<section>
			<h2>What it comes to, person by person</h2>
			<table class="ruled">
				<thead>
					<tr
						><th>People</th><th>Roles</th><th>Rows seen</th><th class="num">May change</th><th>Columns kept back</th
						></tr
					>
				</thead>
				<tbody>
					{#each groups as { people, ...person } (people[0])}
						{@const by = person.seen - person.before}
						<tr class:turned={by !== 0}>
							<td><strong>{people.join(', ')}</strong></td>
							<td>{person.roles.join(', ').toLowerCase() || 'none'}</td>
							<td class="seen">
								<span class="bar" style:width="{Math.round((person.seen / most) * 120)}px"></span>
								<span class="tabular">{showCounted(person.seen)}</span>
								{#if by !== 0}<span class="stamp {by > 0 ? 'good' : 'bad'}">{by > 0 ? `+${by}` : `−${-by}`}</span>{/if}
							</td>
							<td class="num">{showCounted(person.change)}</td>
							<td class="quiet"
								>{person.seen === 0 ? 'all' : person.keptBack.join(', ').toLowerCase() || 'none'}
								{#each person.keptBack.filter((name) => person.seen > 0 && !person.keptBackBefore.includes(name)) as name (name)}
									<span class="stamp bad">−{name}</span>
								{/each}
								{#each person.keptBackBefore.filter((name) => person.seen > 0 && !person.keptBack.includes(name)) as name (name)}
									<span class="stamp good">+{name}</span>
								{/each}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
			{#if preview.unlisted > 0}
				<p class="quiet">
					and {countOf(preview.unlisted, 'person', 'people')} more, by name. The lines hold for them too; they are not counted
					for here.
				</p>
			{/if}
		</section>
		<AccessExamples {table} examples={preview.examples} onchange={() => void invalidateAll()} />
		<WhySeen {table} people={preview.people} onpinned={() => void invalidateAll()} />
	</div>
</div>

<style>
	.bay {
		display: grid;
		grid-template-columns: 195px minmax(0, 1fr);
		flex: 1;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.2rem 1rem;
		padding: 0.9rem 1.3rem;
		border-bottom: 1px solid var(--zinc-3);
	}
	.save {
		display: flex;
		align-items: center;
		gap: 0.7rem;
		padding: 0.7rem 1.3rem;
		border-bottom: 1px solid var(--zinc-5);
	}
	.save p {
		flex: 1;
	}
	.wrong {
		padding: 0.5rem 1.3rem;
	}
	section {
		padding: 1rem 1.3rem 2rem;
	}
	.bar {
		display: inline-block;
		height: 8px;
		background: var(--sea);
		margin-right: 0.5rem;
	}
	.seen {
		white-space: nowrap;
	}
	.tabular {
		font-variant-numeric: tabular-nums;
	}
	td .stamp {
		margin-right: 0.3rem;
	}
	.turned {
		background: var(--selected);
	}
</style>
