import { error, json } from '@sveltejs/kit';
import { PROOF_MINUTES, type Account } from './accounts';
import type { Doer } from './office-record';
import { isRefusal, refuse, type Refusal } from '../core/refusal';
import { logOf } from './log';
import type { Following } from '../press';

const log = logOf('web');

const STATUS: Record<string, number> = {
	'no-link': 404,
	'link-gone': 404,
	'no-packet': 404,
	'no-draft': 404,
	'no-template': 404,
	'no-batch': 404,
	'no-intake': 404,
	'case-gone': 410,
	'no-copy': 404,
	'not-your-template': 403,
	'link-revoked': 410,
	'changed-elsewhere': 409,
	'file-too-large': 413,
	'sheet-too-large': 413,
	'wrong-password': 401,
	'wrong-code': 401,
	'bad-passkey': 401,
	'prove-first': 403,
	busy: 503,
	'directory-away': 503,
	'too-often': 429
};

export function statusOf(refusal: Refusal): number {
	return STATUS[refusal.code] ?? 422;
}

/** A result as JSON; a refusal with its status, code, sentence, place, and what the sentence says in any other language. */
export function answer(result: object | Refusal): Response {
	if (!isRefusal(result)) return json(result);
	const { code, say, at, values } = result;
	return json({ code, say, at, values }, { status: statusOf(result) });
}

/** The result, or the error page with the refusal's sentence. */
export function orError<T>(result: T | Refusal): T {
	if (isRefusal(result)) error(statusOf(result), { message: result.say, code: result.code });
	return result;
}

/** The account; the doors have seen to it that there is one. */
export function accountIn(locals: App.Locals): Account {
	if (!locals.account) error(401, { message: 'Sign in first.' });
	return locals.account;
}

/** Whoever does it, for the office's record. */
export function doerIn({ account, from }: App.Locals): Doer {
	return { account, address: from.address };
}

/** The same, of somebody with an account. */
export function meIn(locals: App.Locals): Doer & { account: Account } {
	return { account: accountIn(locals), address: locals.from.address };
}

/** Refuses `prove-first` where what is wanted asks for a proof of the last minutes that it is them. */
export function proofIn({ session }: App.Locals): Refusal | null {
	if (session?.proved) return null;
	return refuse('prove-first', `This wants a proof that it is you, given within the last ${PROOF_MINUTES} minutes.`);
}

/** A kept file as a response. `name` makes it a download. */
export function fileResponse(bytes: Uint8Array, media: string, name?: string): Response {
	return new Response(new Uint8Array(bytes), {
		headers: {
			'Content-Type': media,
			'Content-Length': String(bytes.length),
			// a file under its hash never changes; but it is for this viewer only
			'Cache-Control': 'private, max-age=3600',
			'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
			...(name && { 'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}` })
		}
	});
}

/**
 * Long work as lines of JSON: how far it is (`{is: 'queued' | 'working' | 'page', …}`), at last its result or its refusal.
 * Whoever stops listening calls it off.
 */
export function followed(work: (following: Following) => Promise<object | Refusal>): Response {
	const ending = new AbortController();
	const lines = new ReadableStream<Uint8Array>({
		async start(stream) {
			const say = (line: object) => {
				if (!ending.signal.aborted) stream.enqueue(new TextEncoder().encode(`${JSON.stringify(line)}\n`));
			};
			let result: object;
			try {
				result = await work({ told: say, signal: ending.signal });
			} catch (error) {
				log.error(error, 'followed work failed');
				result = refuse('failed', 'Something went wrong on our side. Nothing was added; try it again.');
			}
			say(isRefusal(result) ? { is: 'refused', code: result.code, say: result.say } : { is: 'done', ...result });
			if (!ending.signal.aborted) stream.close();
		},
		cancel: () => ending.abort()
	});
	return new Response(lines, { headers: { 'Content-Type': 'application/x-ndjson', 'Cache-Control': 'no-store' } });
}
