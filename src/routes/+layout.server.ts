/** What every signed-in page's ridge shows. */
export async function load({ locals, depends }) {
	depends('app:waiting')
	const { user, host } = locals
	const [{ name }, waiting] = await Promise.all([
		host.read('workspace', undefined),
		user ? host.read('waiting', { actor: { person: user.person } }) : Promise.resolve(0)
	])
	const shown = user && {
		name: user.name,
		roleNames: user.roleNames,
		isBuilder: user.isBuilder,
		isSteward: user.isSteward
	}
	return { workspaceName: name, user: shown, waiting, readAt: locals.now }
}
