/** Using a link that was sent: a password is chosen, and whoever the link was for is in. Opening it does nothing yet. */
import { AppError } from '$lib/core/app-error.ts'
import type { Site } from '../threads/threads.ts'
import { findWeakness, hashPassword } from './passwords.ts'
import { beginSession } from './sign-in.ts'

export interface UsingLink {
	readonly token: string
	readonly password: string
	/** What the first steward of a workspace says besides; others have an account already. */
	readonly name: string
	readonly email: string
	readonly workspaceName: string
	readonly timeZone: string
	readonly agent: string
}

/** The token of a session; undefined for who has a second step: a mailbox alone must not do without it. */
export async function useLink(host: Site, using: UsingLink): Promise<string | undefined> {
	const { token, password, name, email, workspaceName, timeZone, agent } = using
	const now = host.now()
	const link = await host.read('oneTimeLink', { token, now })
	if (!link) throw new AppError('not_found', 'This link has been used, or its time is over. Ask for a new one.')
	const isFirst = link.kind === 'first steward'
	if (isFirst && [name, email, workspaceName].includes(''))
		throw new AppError('invalid', 'Fill in your name, your address and what the workspace is called.')
	const weakness = findWeakness(password, [link.name, link.email, name, email, workspaceName])
	if (weakness) throw new AppError('invalid', weakness)
	const hash = await hashPassword(password)
	const { person } = isFirst
		? await host.write('startWorkspace', { token, name, email, hash, workspaceName, timeZone, now })
		: await host.write('useOneTimeLink', { token, hash, now })
	if ((await host.read('secondFactor', { person }))?.confirmed) return undefined
	return beginSession(host, { person, through: isFirst ? 'first start' : link.kind, agent })
}

/**
 * The app that somebody signed up for at its door, and the token of a session; undefined for who had an account: a mailbox alone
 * does not stand for a password that is there already, or for its second step.
 */
export async function completeSignUp(
	host: Site,
	{ token, password, agent }: Pick<UsingLink, 'token' | 'password' | 'agent'>
): Promise<{ readonly app: number; readonly session: string | undefined }> {
	const now = host.now()
	const signUp = await host.read('signUp', { token, now })
	if (!signUp) throw new AppError('not_found', 'This link has been used, or its time is over. Ask again at the door.')
	const weakness = signUp.known ? undefined : findWeakness(password, [signUp.name, signUp.email])
	if (weakness) throw new AppError('invalid', weakness)
	const hash = signUp.known ? undefined : await hashPassword(password)
	const { app, person, isNew } = await host.write('completeSignUp', { token, hash, now })
	return { app, session: isNew ? await beginSession(host, { person, through: 'door', agent }) : undefined }
}
