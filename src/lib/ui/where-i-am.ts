/** Where this device is, as its browser knows it; a desk has no place of its own, so a stand-in says one that says so. */
import { isAtDesk } from './signal.ts'

/** Off the quay of the demo's harbour. */
export const STAND_IN = { latitude: 50.3121, longitude: -4.1102 }

const LONGEST_MS = 20_000

export type Whereabouts =
	| { readonly ok: true; readonly latitude: number; readonly longitude: number; readonly says: string }
	/** In words, with the remedy. */
	| { readonly ok: false; readonly says: string }

export async function whereIAm(): Promise<Whereabouts> {
	if (isAtDesk())
		return { ok: true, ...STAND_IN, says: 'A stand-in for where the phone is: a desk has no place of its own.' }
	if (!('geolocation' in navigator)) return { ok: false, says: 'This device does not know where it is.' }
	return new Promise((resolve) => {
		navigator.geolocation.getCurrentPosition(
			({ coords: { latitude, longitude, accuracy } }) =>
				resolve({ ok: true, latitude, longitude, says: `Within ${Math.round(accuracy)} m.` }),
			({ code, PERMISSION_DENIED }) =>
				resolve({
					ok: false,
					says:
						code === PERMISSION_DENIED
							? 'This app may not ask where you are. Allow it in the browser.'
							: 'Where you are could not be found. Try again under the open sky.'
				}),
			{ enableHighAccuracy: true, timeout: LONGEST_MS, maximumAge: 10_000 }
		)
	})
}
