<script lang="ts">
	/** Whose screens become more or fewer by a release, by name. */
	import type { ScreenChange } from '$lib/core/requests/bench.ts'

	type Props = {
		gained: { readonly changes: readonly ScreenChange[]; readonly forNobody: readonly string[] }
		app: number
	}

	let { gained, app }: Props = $props()

	const NAMED = 6
	const named = (names: readonly string[]) =>
		names.length <= NAMED
			? names.join(', ')
			: `${names.slice(0, NAMED - 1).join(', ')} and ${names.length - NAMED + 1} more`
</script>

<section>
	<h2>Who gets what by it</h2>
	{#if gained.changes.length === 0}<p class="quiet">Everybody keeps the screens that they have.</p>{/if}
	<ul>
		{#each gained.changes as { title, gains, loses }, i (i)}
			<li>
				<strong>{title}</strong>
				<span>
					{#if gains.length > 0}<ins>for {named(gains)}</ins>{/if}
					{#if loses.length > 0}<del>no more for {named(loses)}</del>{/if}
				</span>
			</li>
		{/each}
	</ul>
	{#if gained.forNobody.length > 0}<p>
			<span class="stamp look">look</span> Nobody is offered {gained.forNobody.join(', ')}: no line of
			<a href="/bench/{app}/access">access</a> lets anybody see or add a row of what stands there.
		</p>{/if}
</section>

<style>
	section {
		display: grid;
		gap: 0.5rem;
	}
	ul {
		margin: 0;
		padding: 0;
		list-style: none;
	}
	li {
		display: grid;
		grid-template-columns: minmax(8rem, 14rem) minmax(0, 1fr);
		gap: 1rem;
		padding: 0.4rem 0;
		border-top: 1px solid var(--zinc-2);
	}
	ins {
		font-weight: 600;
		text-decoration: none;
	}
	del {
		color: var(--oxide);
		text-decoration: none;
	}
</style>
