<script lang="ts">
	/** The word on a row that somebody else has changed since it was last looked at. */
</script>

<span>changed</span>

<style>
	span {
		flex: none;
		color: var(--sea);
		font-size: 0.88rem;
		text-decoration: underline dotted 2px;
		text-underline-offset: 3px;
	}
</style>
