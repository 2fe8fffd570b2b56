/** One-time codes by the clock (RFC 6238: SHA-1, six digits, thirty seconds, as every authenticator reads them). */
import { Secret, TOTP } from 'otpauth'
import QRCode from 'qrcode'
import type { Site } from '../threads/threads.ts'
import { seal, unseal } from '../base/seal.ts'

const PERIOD = 30

/** A fresh secret, not yet in force, with what an authenticator reads. */
export async function beginSecondFactor(
	host: Site,
	{ person, email, workspace }: { person: number; email: string; workspace: string }
): Promise<{ secret: string; picture: string }> {
	const secret = new Secret({ size: 20 })
	await host.write('putSecondFactor', { person, sealed: seal(host.key, 'second factor', secret.base32) })
	const uri = new TOTP({ issuer: workspace, label: email, secret }).toString()
	return { secret: secret.base32, picture: await QRCode.toDataURL(uri, { margin: 1, width: 220 }) }
}

/** Whether a code is right now, or was just before or will be just after, and was not used yet. */
export async function takeCode(host: Site, person: number, code: string): Promise<'right' | 'wrong' | 'used'> {
	const found = await host.read('secondFactor', { person })
	const token = code.replace(/\s/g, '')
	if (!found || !/^\d{6}$/.test(token)) return 'wrong'
	const totp = new TOTP({ secret: Secret.fromBase32(unseal(host.key, 'second factor', found.sealed)) })
	const timestamp = host.now()
	const delta = totp.validate({ token, timestamp, window: 1 })
	if (delta === null) return 'wrong'
	const isNew = await host.write('useStep', { person, step: Math.floor(timestamp / 1000 / PERIOD) + delta })
	return isNew ? 'right' : 'used'
}
