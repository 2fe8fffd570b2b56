/**
 * One-time codes by the clock (RFC 6238: SHA-1, six digits, thirty seconds, as every authenticator reads them). The secret
 * is sealed with AES-256-GCM under a key made from the workspace's, so that a copy of the database alone gives no codes.
 */
import { Secret, TOTP } from 'otpauth'
import QRCode from 'qrcode'
import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto'
import type { Host } from '../host.ts'

const PERIOD = 30

/** A fresh secret, not yet in force, with what an authenticator reads. */
export async function beginSecondFactor(
	host: Host,
	{ person, email, workspace }: { person: number; email: string; workspace: string }
): Promise<{ secret: string; picture: string }> {
	const secret = new Secret({ size: 20 })
	await host.write('putSecondFactor', { person, sealed: seal(host.key, secret.base32) })
	const uri = new TOTP({ issuer: workspace, label: email, secret }).toString()
	return { secret: secret.base32, picture: await QRCode.toDataURL(uri, { margin: 1, width: 220 }) }
}

/** Whether a code is right now, or was just before or will be just after, and was not used yet. */
export async function takeCode(host: Host, person: number, code: string): Promise<boolean> {
	const found = await host.read('secondFactor', { person })
	const token = code.replace(/\s/g, '')
	if (!found || !/^\d{6}$/.test(token)) return false
	const totp = new TOTP({ secret: Secret.fromBase32(unseal(host.key, found.sealed)) })
	const timestamp = host.now()
	const delta = totp.validate({ token, timestamp, window: 1 })
	if (delta === null) return false
	return host.write('useStep', { person, step: Math.floor(timestamp / 1000 / PERIOD) + delta })
}

function keyFrom(key: string): Buffer {
	return Buffer.from(hkdfSync('sha256', Buffer.from(key, 'hex'), '', 'tin-shed second factor', 32))
}

function seal(key: string, text: string): string {
	const iv = randomBytes(12)
	const cipher = createCipheriv('aes-256-gcm', keyFrom(key), iv)
	const body = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
	return Buffer.concat([iv, cipher.getAuthTag(), body]).toString('base64')
}

function unseal(key: string, sealed: string): string {
	const bytes = Buffer.from(sealed, 'base64')
	const decipher = createDecipheriv('aes-256-gcm', keyFrom(key), bytes.subarray(0, 12))
	decipher.setAuthTag(bytes.subarray(12, 28))
	return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8')
}
