<script lang="ts">
	import AskSheet from '$lib/ui/asks/AskSheet.svelte'
	import CaseEvents from '$lib/ui/waiting/CaseEvents.svelte'
	import CaseSheet from '$lib/ui/waiting/CaseSheet.svelte'
	import DecideForm from '$lib/ui/waiting/DecideForm.svelte'
	import WaitingPage from '$lib/ui/asks/WaitingPage.svelte'

	let { data, form } = $props()

	const { sheet, ask, waits } = $derived(data)
	// Each action gives some of these.
	const result = $derived(form as { message?: string; comment?: string; decided?: string } | null)
	const beside = $derived(
		waits.accessRequests.length > 0
			? 'Somebody waits on the doorstep.'
			: waits.givenUp.length > 0
				? 'No request waits on you.'
				: 'Nothing waits on you.'
	)
</script>

<WaitingPage {data} {waits} open={sheet?.id ?? ask?.id} isOpened={data.asked}>
	{#if sheet}
		<CaseSheet {sheet} />
		{#if result?.message}<p class="says-wrong" role="alert">{result.message}</p>{/if}
		{#if sheet.moves.length > 0}
			{#key sheet.id}<DecideForm {sheet} comment={result?.comment ?? ''} />{/key}
		{/if}
	{:else if ask}
		{#key ask.id}<AskSheet sheet={ask} />{/key}
	{:else}
		<p>{beside} What you have decided, and what you have asked for, stands on the left.</p>
	{/if}
	{#snippet happened()}
		{#if sheet}<CaseEvents events={sheet.events} />{/if}
	{/snippet}
</WaitingPage>
