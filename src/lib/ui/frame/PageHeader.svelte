<script lang="ts">
	import type { Snippet } from 'svelte'
	import { page } from '$app/state'
	import FindKey from '../find/FindKey.svelte'
	import SignOut from './SignOut.svelte'
	import { initialsOf } from '../initials.ts'

	type Props = {
		/** The app or place, in bold. */
		title: string
		workspace: string
		user: { name: string; roleNames: readonly string[] } | undefined
		/** How many things wait on this person. */
		waiting?: number
		children?: Snippet
		below?: Snippet
	}

	let { title, workspace, user, waiting = 0, children, below }: Props = $props()

	/** Every page is told how many notices are not read. */
	const unread = $derived(Number(page.data['unread'] ?? 0))
</script>

<header class="page-header">
	<div class="top">
		<a href="/" class="mark" aria-label="Home">
			<svg width="28" height="24" viewBox="0 0 28 24" aria-hidden="true">
				<path d="M2 22V9l12-7 12 7v13z" fill="none" stroke="var(--marigold)" stroke-width="2" stroke-linejoin="round" />
				<path d="M7.5 21v-9M12 21V9.5M16 21V9.5M20.500 21v-9" stroke="var(--marigold)" stroke-width="1.6" />
			</svg>
		</a>
		<strong>{title}</strong>
		<span class="where">{workspace}</span>
		<span class="gap"></span>
		{@render children?.()}
		{#if user}
			<FindKey />
			<a class="waits" href="/waiting"
				>Waiting on me{#if waiting > 0}<span class="count">{waiting}</span>{/if}</a
			>
			<a class="waits" href="/notices"
				>Notices{#if unread > 0}<span class="count">{unread}</span>{/if}</a
			>
			<a class="waits" href="/today">Today</a>
			<div class="who">
				<a class="me" href="/me">
					<span class="face" aria-hidden="true">{initialsOf(user.name)}</span>
					<span class="name"
						>{user.name}{#if user.roleNames[0]}<span class="role">, {user.roleNames[0].toLowerCase()}</span>{/if}</span
					>
				</a>
				<SignOut />
			</div>
		{/if}
	</div>
	{@render below?.()}
</header>

<style>
	.page-header {
		background-color: var(--page-header);
		background-image: var(--ribs);
		color: var(--page-header-text);
	}
	.top {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		min-height: 46px;
		padding: 0.25rem 1rem;
		flex-wrap: wrap;
	}
	strong {
		font-family: var(--head);
		font-stretch: 90%;
	}
	.mark {
		display: flex;
	}
	.where {
		color: var(--page-header-quiet);
	}
	.gap {
		flex: 1;
	}
	.waits {
		color: var(--page-header-text);
		text-decoration: none;
	}
	.waits:hover {
		text-decoration: underline;
	}
	.count {
		margin-left: 0.4rem;
		padding: 0.05rem 0.4rem;
		border-radius: 2px;
		background: var(--marigold);
		color: #16201b;
		font-weight: 700;
	}
	.who {
		display: flex;
		align-items: center;
		gap: 0.5rem;
		border: 1px solid rgb(255 255 255 / 25%);
		border-radius: 99px;
		padding: 0.15rem 0.8rem 0.15rem 0.2rem;
	}
	.face {
		display: grid;
		place-items: center;
		width: 1.7rem;
		height: 1.7rem;
		border-radius: 50%;
		background: var(--marigold);
		color: #16201b;
		font-size: 0.75rem;
		font-weight: 700;
	}
	.me {
		display: flex;
		align-items: center;
		gap: 0.5rem;
		color: inherit;
		text-decoration: none;
	}
	.me:hover .name {
		text-decoration: underline;
	}
	.role {
		color: var(--page-header-quiet);
	}
	@media (max-width: 640px) {
		.where,
		.role {
			display: none;
		}
	}
</style>
