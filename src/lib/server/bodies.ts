import { refuseWith, type Refusal } from '../core/refusal';

/** What comes with a request: how much of it may be, and how it is read. */

const MB = 1024 * 1024;

/** The body as JSON, or undefined where it is none: the border then refuses it. */
export async function bodyOf(request: Request): Promise<unknown> {
	try {
		return await request.json();
	} catch {
		return undefined;
	}
}

/**
 * Judged by its head, before any of it is read: a body larger than the door's limit, or of no told length, is refused.
 * @param most bytes
 */
export function bodyFault(request: Request, most: number): { status: 411 | 413; no: Refusal } | null {
	if (request.headers.has('transfer-encoding'))
		return {
			status: 411,
			no: refuseWith('no-length', 'What was sent did not say how long it is, and was not read.', {})
		};
	if (Number(request.headers.get('content-length') ?? 0) <= most) return null;
	const megabytes = Math.max(1, Math.floor(most / MB));
	const say =
		most >= MB
			? `The file may have ${megabytes} MB at most. Nothing of it was taken; what you entered is kept.`
			: `What was sent is larger than the ${Math.round(most / 1024)} kB that this takes. Nothing was done; what you entered is kept.`;
	return { status: 413, no: refuseWith('file-too-large', say, { megabytes }) };
}
