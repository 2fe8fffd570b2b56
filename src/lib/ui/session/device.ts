/** What kind of device a browser says that it runs on. */
export function deviceOf(agent: string): string {
	if (/iPad|Tablet/.test(agent)) return 'A tablet'
	return /Mobi|Android|iPhone/.test(agent) ? 'A phone' : 'A computer'
}
