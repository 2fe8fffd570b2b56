<script lang="ts">
	/** What somebody was told, the newest first; what is not read yet stands out. */
	import { untrack } from 'svelte'
	import { enhance } from '$app/forms'
	import { invalidateAll } from '$app/navigation'
	import { followTables } from '$lib/ui/follow.ts'
	import { showMoment } from '$lib/ui/dates.ts'
	import ReportRows from '$lib/ui/waiting/ReportRows.svelte'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'

	let { data } = $props()

	const { told } = $derived(data)

	// What comes while the page is open comes into it: what the header counts is read again then.
	$effect(() => followTables([]))
	$effect(() => {
		if (data.unread > untrack(() => told.unread)) void invalidateAll()
	})
</script>

<svelte:head><title>Notices</title></svelte:head>

<PageHeader title="Notices" workspace={data.workspaceName} user={data.user} waiting={data.waiting} />
<main>
	<header>
		<h1>Notices</h1>
		{#if told.unread > 0}
			<form method="POST" action="?/readAll" use:enhance>
				<input type="hidden" name="upto" value={told.notices[0]?.id} />
				<button class="btn">Mark all as read</button>
			</form>
		{/if}
		{#if told.notices.some(({ isRead }) => isRead)}
			<form method="POST" action="?/clear" use:enhance>
				<input type="hidden" name="upto" value={told.notices[0]?.id} />
				<button class="btn plain">Clear what is read</button>
			</form>
		{/if}
		<span class="gap"></span>
		<a href="/me">How I am told</a>
	</header>
	{#each told.notices as notice (notice.id)}
		<article id={notice.id} class:unread={!notice.isRead}>
			<h2>{notice.subject}</h2>
			<span class="when">{showMoment(notice.at)}{notice.isRead ? '' : ' · new'}</span>
			{#if notice.body}<p class="body">{notice.body}</p>{/if}
			{#if notice.report}
				<div class="report"><ReportRows report={notice.report} inFile={notice.fileName !== null} /></div>
			{/if}
			{#if notice.fileName}<p class="body"><a href="/notices/{notice.id}/file" download>{notice.fileName}</a></p>{/if}
			{#if notice.hasLink || !notice.isRead}
				<form method="POST" action="/notices/{notice.id}">
					<button class="btn" class:main={notice.hasLink && !notice.isRead}
						>{notice.hasLink ? 'Go there' : 'Mark as read'}<span class="visually-hidden">: {notice.subject}</span
						></button
					>
				</form>
			{/if}
		</article>
	{:else}
		<p class="quiet">There is nothing here. What routines send you, and what is asked of you, will stand here.</p>
	{/each}
	{#if told.isCut}<p class="quiet">Older ones are not shown.</p>{/if}
</main>

<style>
	main {
		max-width: 52rem;
		padding: 1.2rem 2rem 3rem;
		display: grid;
		gap: 0.7rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 1rem;
	}
	.gap {
		flex: 1;
	}
	article {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto;
		gap: 0.3rem 1rem;
		align-items: baseline;
		padding: 0.7rem 1rem;
		border: 1px solid var(--zinc-3);
		border-left-width: 4px;
		border-radius: 3px;
	}
	article.unread {
		border-left-color: var(--marigold);
		background: var(--marigold-wash);
	}
	h2 {
		margin: 0;
		font: 600 1.05rem var(--head);
	}
	.unread h2 {
		font-weight: 750;
	}
	.when {
		justify-self: end;
		color: var(--zinc-7);
		font-size: 0.92rem;
		white-space: nowrap;
	}
	.body {
		grid-column: 1;
		white-space: pre-line;
		overflow-wrap: anywhere;
	}
	.report {
		grid-column: 1 / -1;
		min-width: 0;
	}
	article form {
		grid-column: 2;
		justify-self: end;
		align-self: end;
	}
	article form .btn {
		min-height: 40px;
	}
	@media (max-width: 640px) {
		main {
			padding: 1rem;
		}
		article {
			grid-template-columns: 1fr;
		}
		article form {
			grid-column: 1;
			justify-self: start;
		}
	}
</style>
