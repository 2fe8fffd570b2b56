<script lang="ts">
	import { enhance } from '$app/forms'
	import { showMoment } from '$lib/ui/dates.ts'
	import AppFace from '$lib/ui/bench/AppFace.svelte'
	import AppAddress from '$lib/ui/bench/AppAddress.svelte'
	import ComparedVersions from '$lib/ui/bench/ComparedVersions.svelte'
	import { useDraft } from '$lib/ui/bench/draft.svelte.ts'

	let { data, form } = $props()

	const draft = useDraft()
	const mistakes = $derived(data.findings.filter((finding) => finding.weight === 'mistake'))
	const remarks = $derived(data.findings.filter((finding) => finding.weight === 'remark'))
	// Each action gives some of these.
	const result = $derived(
		form as {
			message?: string
			released?: number
			putBack?: number
			typed?: string
		} | null
	)

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
		{#each mistakes as finding (finding.place + finding.message)}
			<p class="finding"><span class="stamp bad">mend</span> <strong>{finding.place}:</strong> {finding.message}</p>
		{/each}
		{#each remarks as finding (finding.place + finding.message)}
			<p class="finding"><span class="stamp look">look</span> <strong>{finding.place}:</strong> {finding.message}</p>
		{/each}
		<form method="POST" action="?/release" use:enhance>
			<label for="note">What has changed, for those who look later</label>
			<input id="note" name="note" class="field" maxlength="500" />
			<label class="tick"
				><input type="checkbox" name="tells" checked /> Send its link to those who get it by this release</label
			>
			{#if result?.message && result.typed === undefined}<p class="says-wrong" role="alert">{result.message}</p>{/if}
			{#if result?.released}<p role="status">
					<span class="stamp good">released</span> Release {result.released} is live.
				</p>{/if}
			{#if result?.putBack}<p role="status">
					<span class="stamp good">put back</span> Release {result.putBack} is live again. Access stayed as it was.
				</p>{/if}
			<button class="btn main" disabled={mistakes.length > 0 || !data.current.ahead}>
				{mistakes.length > 0
					? 'Mend what is marked first'
					: data.current.ahead
						? `Release as no. ${(data.releases[0]?.number ?? 0) + 1}`
						: 'Nothing new to release'}
			</button>
		</form>
	</section>
	{#if data.releases.length > 0}
		<ComparedVersions compared={data.compared} releases={data.releases} names={data.bench.vocabulary} />
	{/if}
	<AppFace {draft} />
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
	.finding {
		padding-left: 0.2rem;
	}
	form {
		display: grid;
		gap: 0.5rem;
		justify-items: start;
		max-width: 34rem;
	}
	label {
		font-weight: 600;
	}
</style>
