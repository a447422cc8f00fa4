/** How far a document is that is on its way in. */
export type Progress = { is: 'sent' } | { is: 'queued' } | { is: 'working' } | { is: 'page'; page: number; of: number };

/** What the server has made of it, or why not. */
export type Answered<T> = ({ is: 'done' } & T) | { is: 'refused'; code: string; say: string };

/** What stands beside a document's name while it is taken in. */
export function progressSaid(progress: Progress): string {
	switch (progress.is) {
		case 'sent':
			return 'on its way';
		case 'queued':
			return 'waiting its turn';
		case 'working':
			return 'being taken in';
		case 'page':
			return `page ${progress.page} of ${progress.of}`;
	}
}

/**
 * Sends a body and follows the lines of JSON that come back, the last of which is the answer. Throws where the connection
 * breaks before it, or `signal` calls it off.
 */
export async function follow<T>(
	url: string,
	body: BodyInit,
	media: string | null,
	told: (progress: Progress) => void,
	signal: AbortSignal
): Promise<Answered<T>> {
	const response = await fetch(url, {
		method: 'POST',
		headers: { Accept: 'application/x-ndjson', ...(media && { 'Content-Type': media }) },
		body,
		signal
	});
	if (!response.body || !response.headers.get('content-type')?.startsWith('application/x-ndjson')) {
		const { code = '', say, message } = (await response.json()) as { code?: string; say?: string; message?: string };
		return { is: 'refused', code, say: say ?? message ?? 'It could not be taken in.' };
	}
	const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
	let rest = '';
	for (;;) {
		const { done, value } = await reader.read();
		if (done) throw new Error('the connection broke off');
		rest += value;
		const lines = rest.split('\n');
		rest = lines.pop()!;
		for (const line of lines) {
			const what = JSON.parse(line) as Progress | Answered<T>;
			if (what.is === 'done' || what.is === 'refused') return what;
			told(what);
		}
	}
}
