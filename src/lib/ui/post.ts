/** Pauses between tries in ms, where the server says that it is busy for a while. */
const AGAIN = [1000, 2000, 4000];

/** As fetch, but asks again a few times where the server is busy; nothing was done until then. */
export async function patient(url: string, init: RequestInit): Promise<Response> {
	let response = await fetch(url, init);
	for (const pause of AGAIN) {
		if (response.status !== 503) return response;
		await new Promise((go) => setTimeout(go, pause));
		response = await fetch(url, init);
	}
	return response;
}

/**
 * Asks the server to do something, with JSON both ways. Gives its answer, or a sentence for a person: the server's own,
 * or that there is no connection, and in either case what was `kept`. What is `small` (64 KiB at most) gets there also where
 * the page is left meanwhile (Fetch Standard, keepalive).
 */
export async function post<T extends object>(
	url: string,
	body: unknown,
	kept: string,
	{ small = false } = {}
): Promise<T | { wrong: string }> {
	try {
		const response = await patient(url, {
			method: 'POST',
			headers: { 'Content-Type': 'application/json' },
			body: JSON.stringify(body),
			keepalive: small
		});
		const answer = (await response.json()) as T & { say?: string; message?: string };
		return response.ok ? answer : { wrong: `${answer.say ?? answer.message ?? 'It could not be done.'} ${kept}` };
	} catch {
		return { wrong: `No connection, so nothing was done. ${kept} Try again.` };
	}
}
