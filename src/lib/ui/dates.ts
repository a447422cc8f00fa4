/** Dates and times as the office reads them; `zone` is an IANA name, `at` ISO 8601. */
export function day(at: string, zone: string, now: string): string {
	const of = (date: string) => new Intl.DateTimeFormat('sv-SE', { timeZone: zone }).format(new Date(date));
	const days = Math.round((Date.parse(of(at)) - Date.parse(of(now))) / 86_400_000);
	if (days === 0) return 'today';
	if (days === 1) return 'tomorrow';
	if (days === -1) return 'yesterday';
	const sameYear = of(at).slice(0, 4) === of(now).slice(0, 4);
	return new Intl.DateTimeFormat('en-GB', {
		day: 'numeric',
		month: 'short',
		...(!sameYear && { year: 'numeric' }),
		timeZone: zone
	}).format(new Date(at));
}

export function moment(at: string, zone: string): string {
	return new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'medium', timeZone: zone }).format(
		new Date(at)
	);
}

export function clock(at: string, zone: string, language = 'en'): string {
	return new Intl.DateTimeFormat(language === 'en' ? 'en-GB' : language, { timeStyle: 'short', timeZone: zone }).format(
		new Date(at)
	);
}

/** This moment by the browser's own clock, ISO 8601 in UTC. */
export function rightNow(): string {
	return new Date().toISOString();
}
