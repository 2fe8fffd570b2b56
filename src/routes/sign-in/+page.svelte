<script lang="ts">
	let { data, form } = $props()

	const roles = $derived([...new Set(data.people.map((person) => person.roles[0] ?? 'Others'))].sort())
	const query = $derived(`&then=${encodeURIComponent(data.then)}`)
</script>

<svelte:head><title>Sign in · {data.workspace}</title></svelte:head>

<div class="page">
	<section class="door">
		<svg width="56" height="48" viewBox="0 0 28 24" aria-hidden="true">
			<path d="M2 22V9l12-7 12 7v13z" fill="none" stroke="var(--marigold)" stroke-width="1.6" stroke-linejoin="round" />
			<path d="M7.5 21v-9M12 21V9.5M16 21V9.5M20.500 21v-9" stroke="var(--marigold)" stroke-width="1.300" />
		</svg>
		<p class="name">Tin Shed</p>
		<p class="where">{data.workspace}</p>
	</section>
	<main>
		<h1>Sign in</h1>
		<form method="POST" action="?/password{query}">
			<label for="email">Email</label>
			<input
				class="field"
				id="email"
				name="email"
				type="email"
				autocomplete="username"
				required
				value={form?.email ?? ''}
			/>
			<label for="password">Password</label>
			<input class="field" id="password" name="password" type="password" autocomplete="current-password" required />
			{#if form?.message}<p class="says-wrong" role="alert">{form.message}</p>{/if}
			<button class="btn main">Sign in</button>
		</form>
		{#if data.people.length > 0}
			<section aria-labelledby="demo">
				<h2 id="demo">Or, in this demo, as one of these people</h2>
				<p class="quiet">All of them are invented. Each sees what their roles let them see.</p>
				<form method="POST" action="?/demo{query}" class="people">
					{#each roles as role (role)}
						<div>
							<h3>{role}</h3>
							{#each data.people.filter((person) => (person.roles[0] ?? 'Others') === role) as person (person.person)}
								<button class="person" name="person" value={person.person}>{person.name}</button>
							{/each}
						</div>
					{/each}
				</form>
			</section>
		{/if}
	</main>
</div>

<style>
	.page {
		display: grid;
		grid-template-columns: minmax(14rem, 24rem) 1fr;
		min-height: 100dvh;
	}
	.door {
		background-color: var(--ridge);
		background-image: var(--ribs);
		color: var(--ridge-text);
		padding: 3rem 2rem;
		display: flex;
		flex-direction: column;
		gap: 0.4rem;
	}
	.name {
		font-family: var(--head);
		font-stretch: 88%;
		font-weight: 750;
		font-size: 2rem;
		margin-top: 0.8rem;
	}
	.where {
		color: var(--ridge-quiet);
	}
	main {
		padding: 3rem 2.5rem;
		display: grid;
		gap: 1.4rem;
		align-content: start;
	}
	form {
		display: grid;
		gap: 0.4rem;
		max-width: 22rem;
	}
	label {
		font-weight: 600;
	}
	form .btn {
		margin-top: 0.6rem;
		justify-self: start;
	}
	section {
		border-top: 1px solid var(--zinc-3);
		padding-top: 1.2rem;
		display: grid;
		gap: 0.5rem;
	}
	.door {
		border: 0;
	}
	.people {
		display: block;
		max-width: 60rem;
		columns: 11rem;
		margin-top: 0.5rem;
	}
	.people > div {
		display: flex;
		flex-direction: column;
		align-items: flex-start;
		break-inside: avoid;
		padding-bottom: 0.8rem;
	}
	.people h3 {
		color: var(--zinc-7);
		margin-bottom: 0.2rem;
	}
	.person {
		border: 0;
		background: none;
		font: inherit;
		color: var(--sea);
		text-decoration: underline;
		min-height: 24px;
		padding: 0.1rem 0;
		text-align: left;
	}
	@media (max-width: 720px) {
		.page {
			grid-template-columns: 1fr;
		}
		.door {
			padding: 1.2rem 1.5rem;
		}
		main {
			padding: 1.5rem;
		}
	}
</style>
