<script lang="ts">
	import { enhance } from '$app/forms'
	import { showMoment } from '$lib/ui/dates.ts'
	import AppAsFile from '$lib/ui/bench/AppAsFile.svelte'
	import AppFace from '$lib/ui/bench/AppFace.svelte'
	import AppAddress from '$lib/ui/bench/AppAddress.svelte'
	import { compareVersions, noteOf } from '$lib/core/app/compare-versions.ts'
	import ReleaseForm from '$lib/ui/bench/ReleaseForm.svelte'
	import HowUsed from '$lib/ui/bench/HowUsed.svelte'
	import WhoGains from '$lib/ui/bench/WhoGains.svelte'
	import Findings from '$lib/ui/bench/Findings.svelte'
	import ComparedVersions from '$lib/ui/bench/ComparedVersions.svelte'
	import { useDraft } from '$lib/ui/bench/draft.svelte.ts'

	let { data, form } = $props()

	const draft = useDraft()
	const mistakes = $derived(data.findings.filter((finding) => finding.weight === 'mistake'))
	// Each action gives some of these.
	const result = $derived(
		form as {
			message?: string
			released?: number
			putBack?: number
			planned?: true
			calledOff?: true
			typed?: string
		} | null
	)

	/** Of what staff use and the draft, whatever else is compared below. */
	const proposed = $derived.by(() => {
		const { from, to, before, after } = data.compared
		const isOfDraft = before && after && from === data.current.live && to === 0
		return isOfDraft ? noteOf(compareVersions(before, after, data.bench.vocabulary)) : ''
	})

	// After a release the draft is no longer ahead; the page header says so too.
	$effect(() => {
		draft.ahead = data.current.ahead
	})
</script>

<div class="page">
	<section>
		<h1>Check and release</h1>
		<p class="quiet">
			{data.current.live === null
				? 'Nothing is released yet: staff see nothing of this app.'
				: `Staff use release ${data.current.live}.`}
			Access is no part of a release: it is in force as soon as its lines are saved.
		</p>
		{#if data.findings.length === 0}<p><span class="stamp good">good</span> The check found nothing.</p>{/if}
		<Findings findings={data.findings} app={draft.app} />
		<ReleaseForm
			planned={data.planned}
			next={(data.releases[0]?.number ?? 0) + 1}
			ahead={data.current.ahead}
			mistakes={mistakes.length}
			{proposed}
			result={result?.typed === undefined ? result : null}
		/>
	</section>
	{#if data.current.ahead}<WhoGains gained={data.gained} app={draft.app} />{/if}
	{#if data.releases.length > 0}
		<ComparedVersions compared={data.compared} releases={data.releases} names={data.bench.vocabulary} />
	{/if}
	{#if data.current.live !== null}<HowUsed openings={data.openings} screens={draft.document.screens} />{/if}
	<AppFace {draft} />
	<AppAsFile {draft} />
	{#if data.current.live !== null}<AppAddress
			address={data.address}
			code={data.code}
			word={data.word}
			origin={data.origin}
			wrong={result?.typed === undefined ? '' : (result.message ?? '')}
		/>{/if}
	<section>
		<h2>Releases</h2>
		{#if data.releases.length === 0}
			<p class="quiet">There is none yet.</p>
		{:else}
			<table class="ruled">
				<thead><tr><th>No.</th><th>Made</th><th>By</th><th>What changed</th><td></td></tr></thead>
				<tbody>
					{#each data.releases as release (release.number)}
						<tr>
							<td
								><strong>{release.number}</strong>
								{#if release.number === data.current.live}<span class="stamp good">live</span>{/if}</td
							>
							<td>{showMoment(release.madeAt)}</td>
							<td>{release.madeBy}</td>
							<td>{release.note}</td>
							<td>
								{#if release.number !== data.current.live}
									<form method="POST" action="?/putBack" use:enhance>
										<button class="btn" name="number" value={release.number}>Put back</button>
									</form>
								{/if}
							</td>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
	</section>
</div>

<style>
	.page {
		padding: 1.1rem 1.5rem 2rem;
		display: grid;
		gap: 2rem;
		max-width: 62rem;
	}
	section {
		display: grid;
		gap: 0.7rem;
	}
	form {
		display: grid;
		gap: 0.5rem;
		justify-items: start;
		max-width: 34rem;
	}
</style>
