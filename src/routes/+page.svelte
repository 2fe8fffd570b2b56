<script lang="ts">
	import { appFileAddress } from '$lib/core/requests/app-files.ts'
	import { showCount } from '$lib/ui/count.ts'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'
	import { showAge, showMoment } from '$lib/ui/dates.ts'

	let { data } = $props()
</script>

<svelte:head><title>{data.workspaceName}</title></svelte:head>

<PageHeader title={data.workspaceName} workspace="" user={data.user} waiting={data.waiting} />
<div class="page">
	<main>
		<div class="head">
			<h1>Apps</h1>
			{#if data.user?.isBuilder}<a class="btn main" href="/bench/new">Start an app from a file or tables</a>{/if}
		</div>
		{#each data.waitsAt as door (door.app)}
			<p class="empty">
				You wait on the doorstep of <a href="/door/{door.app}">{door.name}</a>. You are told as soon as you are let in.
			</p>
		{/each}
		{#if data.apps.length === 0 && data.waitsAt.length === 0}
			<p class="empty">
				{data.user?.isBuilder
					? 'There is no app yet. Start one from a spreadsheet file, or from tables that are here already.'
					: 'No app is open to you yet. Ask whoever looks after the workspace to give you a role.'}
			</p>
		{/if}
		<ul class="apps">
			{#each data.apps as app (app.id)}
				<li>
					{#if app.icon && app.open}<img class="paint" src={appFileAddress(app.icon.sha, `/app/${app.id}`)} alt="" />
					{:else}<span class="paint" style:background="var(--{app.colour})" aria-hidden="true">{app.name[0]}</span>{/if}
					<div class="about">
						<h2>{app.name}</h2>
						<p class="quiet">{app.about}</p>
					</div>
					<p class="state">
						{#if data.user?.isBuilder}
							{app.live === null ? 'Not released yet' : `Release ${app.live} live${app.ahead ? ', draft ahead' : ''}`}
						{/if}
					</p>
					<div class="doors">
						{#if app.open}<a class="btn" href="/app/{app.id}">Open</a>{/if}
						{#if data.user?.isBuilder}<a class="btn" href="/bench/{app.id}/screens">Bench</a>{/if}
					</div>
				</li>
			{/each}
		</ul>
		{#if data.user?.isBuilder}
			<section>
				<h2 class="ruledhead">Sources brought in</h2>
				{#if data.sources.length === 0}
					<p class="empty">No file has been brought in by you yet.</p>
				{:else}
					<table class="ruled">
						<tbody>
							{#each data.sources as source (source.table)}
								<tr>
									<td><strong>{source.file}</strong></td>
									<td class="quiet"
										>brought in {showMoment(source.at)}{source.sheet ? ` · sheet ${source.sheet}` : ''}</td
									>
									<td>{source.table}</td>
									<td class="num">{showCount(source.rows)} {source.rows === 1 ? 'row' : 'rows'}</td>
								</tr>
							{/each}
						</tbody>
					</table>
				{/if}
			</section>
		{/if}
	</main>
	<aside>
		<h2>Waiting on me</h2>
		{#each data.waits as item (item.href)}
			<a class="card" href={item.href}>
				<span>
					<strong>{item.name}</strong>
					<span class="quiet">{item.about}</span>
				</span>
				<span class="stamp info">{showAge(item.askedAt)}</span>
			</a>
		{/each}
		{#if data.waiting === 0}<p class="quiet">Nothing waits on you.</p>{/if}
		{#if data.waiting > data.waits.length}<p><a href="/waiting">All {data.waiting}</a></p>{/if}
		{#if data.decided.length > 0}
			<h2>Decided for you</h2>
			{#each data.decided as item (item.id)}
				<a class="card" href="/waiting/{item.id}">
					<span><strong>{item.label}</strong><span class="quiet">{item.name}</span></span>
					<span class="stamp {item.state === 'approved' ? 'good' : 'bad'}">{item.state}</span>
				</a>
			{/each}
		{/if}
		<p class="foot">
			{#if data.user?.isSteward || data.user?.isBuilder}<a href="/people">People and roles</a>{/if}
			{#if data.user?.isSteward}<a href="/logbook">Logbook</a> <a href="/workspace">Workspace</a>{/if}
			<a href="/post">Post tray</a>
		</p>
	</aside>
</div>

<style>
	.page {
		display: grid;
		grid-template-columns: 1fr minmax(18rem, 24rem);
		min-height: calc(100dvh - 46px);
	}
	main {
		padding: 1.4rem 2rem;
	}
	aside {
		background: var(--limewash);
		border-left: 1px solid var(--zinc-3);
		padding: 1.4rem 1.5rem;
		display: flex;
		flex-direction: column;
		gap: 0.6rem;
	}
	.head {
		display: flex;
		align-items: center;
		justify-content: space-between;
		border-bottom: 1px solid var(--pitch);
		padding-bottom: 0.7rem;
	}
	.apps {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	.apps li {
		display: grid;
		grid-template-columns: 46px 1fr minmax(8rem, 12rem) 10rem;
		gap: 1.2rem;
		align-items: center;
		padding: 0.8rem 0.2rem;
		border-bottom: 1px solid var(--zinc-2);
	}
	.paint {
		display: grid;
		place-items: center;
		width: 46px;
		height: 46px;
		border-radius: 3px;
		color: var(--on-ink);
		font-family: var(--head);
		font-weight: 700;
		font-size: 1.2rem;
	}
	img.paint {
		object-fit: cover;
	}
	.state {
		color: var(--zinc-7);
	}
	.doors {
		display: flex;
		gap: 0.4rem;
		justify-content: flex-end;
	}
	section {
		margin-top: 2rem;
	}
	.ruledhead {
		border-bottom: 1px solid var(--pitch);
		padding-bottom: 0.5rem;
	}
	.empty {
		padding: 1rem 0;
		color: var(--zinc-7);
	}
	.card {
		display: flex;
		justify-content: space-between;
		align-items: flex-start;
		gap: 0.6rem;
		background: var(--paper);
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		padding: 0.6rem 0.8rem;
		color: inherit;
		text-decoration: none;
	}
	.card:hover {
		border-color: var(--pitch);
	}
	.card .quiet {
		display: block;
		font-size: 0.9rem;
	}
	.foot {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 1.2rem;
		margin-top: auto;
		padding-top: 1rem;
	}
	@media (max-width: 900px) {
		.page {
			grid-template-columns: 1fr;
		}
		aside {
			border-left: 0;
			order: -1;
		}
		main {
			padding: 1.2rem;
		}
		.apps li {
			grid-template-columns: 46px 1fr auto;
		}
		.state {
			display: none;
		}
	}
</style>
