/**
 * What every request passes: who is signed in, forgery of other sites' requests refused, headers that keep pages out of
 * frames, caches and guesses.
 */
import { error, redirect, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit'
import { setMaxListeners } from 'node:events'
import { resolve as resolvePath } from 'node:path'
import { AppError } from '$lib/core/app-error.ts'
import { endForOperator } from '$lib/server/base/for-operator.ts'
import { openHost, type Host } from '$lib/server/host/host.ts'
import { lookOf } from '$lib/server/web/look-of-pages.ts'
import { refuseOddParams } from '$lib/server/web/address.ts'
import { addressOf, readProxies, type Proxies } from '$lib/server/base/client-address.ts'
import { readSmtp } from '$lib/server/post/read-smtp.ts'
import { findFollower, hasFollowed } from '$lib/server/sign-in/look-cookie.ts'
import { readSessionToken } from '$lib/server/sign-in/session-cookie.ts'
import { hashToken } from '$lib/server/base/token.ts'

let host: Host

export const init: ServerInit = async () => {
	const folder = resolvePath(process.env['TIN_SHED_DATA'] ?? 'var')
	const scripts = resolvePath(process.env['TIN_SHED_THREADS'] ?? 'build/threads')
	try {
		proxies = readProxies(process.env['TIN_SHED_PROXIES'])
		const smtp = readSmtp(process.env['SMTP_URL'], process.env['SMTP_FROM'])
		const calls = process.env['TIN_SHED_CALLS']
		host = await openHost({ folder, scripts, smtp, calls, origin: process.env['ORIGIN'] ?? 'http://127.0.0.1:4700' })
	} catch (error) {
		endForOperator(error, folder)
	}
	process.once('sveltekit:shutdown', () => void host.close().then(() => process.exit(0)))
}

/**
 * By the beginning of a route, never of an address: an address can be written in many ways that lead to one route. What has
 * no route is nothing that is open.
 */
/** Where other programs ask: each request is signed, and comes from no page. */
const REQUESTS = '/request'
const OPEN_ROUTES = ['/sign-in', '/join', '/answer', '/forgot', '/door', '/look', '/healthz', REQUESTS]
/** An account of one's own, mail and decisions: nothing for who is not named; their loads and actions say so too. */
const SHUT_TO_VISITORS = ['/me', '/post', '/waiting', '/notices', '/people', '/workspace', '/today', '/find']

let proxies: Proxies

export const handle: Handle = async ({ event, resolve }) => {
	const { locals, url, request, cookies } = event
	const route = event.route.id ?? ''
	locals.host = forRequest(request.signal)
	locals.now = host.now()
	locals.from = addressOf(event.getClientAddress(), request.headers.get('x-forwarded-for'), proxies)
	const token = readSessionToken(cookies, url)
	const own = token ? await host.read('session', { tokenHash: hashToken(token), now: locals.now }) : undefined
	if (token && own?.useIsDue) await host.write('noteUse', { tokenHash: hashToken(token), now: locals.now })
	const follower = findFollower(host, event)
	// Whoever follows a look is nobody else at its addresses, and nobody at any other; that it is followed is no use of the session.
	locals.sessionHash = follower?.sessionHash ?? (token ? hashToken(token) : '')
	locals.isFollowing = follower !== undefined
	locals.user = follower ? await host.read('session', { tokenHash: follower.sessionHash, now: locals.now }) : own
	if (!route.startsWith(`${REQUESTS}/`)) refuseForeign(request, url)
	refuseOddParams(event.params)
	refuseTooMuch(request, route)
	const isUnder = (routes: readonly string[]) => routes.some((each) => route === each || route.startsWith(`${each}/`))
	if (locals.user?.visits !== undefined && isUnder(SHUT_TO_VISITORS))
		error(403, 'This is for people with an account of their own. Sign in first.')
	if (!locals.user && !isUnder(OPEN_ROUTES)) {
		if (request.method !== 'GET' || !request.headers.get('accept')?.includes('text/html'))
			error(401, 'You are signed out. Sign in again; what you typed is still on this page.')
		if (isUnder(['/as']) && !token && hasFollowed(cookies, url)) redirect(303, '/look')
		const word = isUnder(['/to']) ? (event.params['word'] ?? '') : undefined
		const named = word === undefined ? event.params['app'] : await host.read('appByWord', { word })
		const app = isUnder(['/app', '/to']) ? Number(named ?? NaN) : NaN
		// Strangers come to the door; whoever was signed in before signs in again.
		if (Number.isSafeInteger(app) && !token && (await host.read('door', { app }))) redirect(303, `/door/${app}`)
		redirect(303, `/sign-in?then=${encodeURIComponent(url.pathname + url.search)}`)
	}
	const look = lookOf(cookies)
	const response = await resolve(event, {
		transformPageChunk: ({ html }) => html.replace('%look%', look),
		preload: ({ type }) => type === 'js' || type === 'css' || type === 'font'
	})
	if (route === TRIES_PICTURES) loosenForPictures(response)
	response.headers.set('x-content-type-options', 'nosniff')
	response.headers.set('referrer-policy', 'same-origin')
	response.headers.set('permissions-policy', 'camera=(self), geolocation=(self), microphone=()')
	response.headers.set('cross-origin-opener-policy', 'same-origin')
	response.headers.set('cross-origin-resource-policy', 'same-origin')
	// A year, as RFC 6797 has it; only where this is reached over HTTPS at all.
	if (url.protocol === 'https:') response.headers.set('strict-transport-security', 'max-age=31536000')
	if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store')
	return response
}

/** More than any page asks for at once. */
const MOST_ASKED = 32

/** What is read for a request is left when whoever asked has gone: a long search would go on for nobody. */
function forRequest(signal: AbortSignal): Host {
	// A page that asks for a dozen things at once leaves no listener behind: each goes with its answer.
	setMaxListeners(MOST_ASKED, signal)
	return {
		...host,
		read: (name, args, own) => unlessBusy(host.read(name, args, own ?? signal)),
		readJson: (name, args, own) => unlessBusy(host.readJson(name, args, own ?? signal))
	}
}

/** That too much is under way is nobody's fault, wherever it is met: a page that is asked for is answered so, not as one of ours. */
async function unlessBusy<T>(answer: Promise<T>): Promise<T> {
	try {
		return await answer
	} catch (thrown) {
		if (thrown instanceof AppError && thrown.code === 'busy') error(429, thrown.message)
		throw thrown
	}
}

/** The one page on which a builder's browser tries addresses of pictures elsewhere. */
const TRIES_PICTURES = '/bench/[app]/tables/pictures'

function loosenForPictures(response: Response): void {
	const policy = response.headers.get('content-security-policy')
	if (!policy) return
	const pictures = `img-src 'self' data: blob: https: http:; connect-src 'self' https: http:`
	response.headers.set('content-security-policy', policy.replace(/img-src [^;]*/, pictures))
}

/** A request that changes something must come from a page of ours. */
function refuseForeign(request: Request, url: URL): void {
	if (request.method === 'GET' || request.method === 'HEAD') return
	const origin = request.headers.get('origin')
	const site = request.headers.get('sec-fetch-site')
	const ours = origin === null ? site === 'same-origin' : origin === url.origin
	if (!ours) error(403, 'This request did not come from a page of this workspace, so nothing was done.')
}

/** Files are put, and streamed to disk under limits of their own; anything else is read whole, so it must be short. */
const STREAMED = ['/files/[column]', '/pictures', '/bench/imports']
const MOST_BYTES = 8 * 1024 * 1024

function refuseTooMuch(request: Request, route: string): void {
	if (request.method === 'GET' || request.method === 'HEAD') return
	if (request.method === 'PUT' && STREAMED.includes(route)) return
	if (request.headers.has('transfer-encoding'))
		error(411, 'Say how long the body is: send it with a Content-Length, at most 8 MB.')
	if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES)
		error(413, 'That is more than can be taken in at once. Send it in parts of at most 8 MB.')
}

const STATUS = { not_found: 404, forbidden: 403, conflict: 409, invalid: 422, busy: 429, signed_out: 401 } as const

/** Expected refusals keep their words; anything else is our own mistake and shows none of its detail. */
export const handleError: HandleServerError = ({ error: thrown, status, message }) => {
	if (thrown instanceof AppError) return { message: thrown.message, status: STATUS[thrown.code] }
	if (status >= 500) console.error(thrown)
	return {
		message:
			status === 404
				? 'There is nothing at this address.'
				: message === 'Internal Error'
					? 'Something went wrong on our side. Nothing was changed.'
					: message
	}
}
