import { reaches } from '../../core/access';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { permitted } from '../access';
import { arrived, ownBytes } from '../arriving';
import { bodyFault } from '../bodies';
import { factorsOf, hasFactor, safety } from '../accounts';
import { inTransaction, isBusy, isFull } from '../db';
import type { House } from '../house';
import { count, left } from '../limits';
import { logOf } from '../log';
import { note } from '../office-record';
import { fileResponse, statusOf } from '../web';
import { bodyIn, operationAt, queryOf, revisionIn, type Found } from './asking';
import { callerOf, type Caller } from './keys';
import { before, forget, keep, onceOf } from './once';
import { FileAnswer, Revised } from './operation';
import { OPERATIONS } from './operations';
import { problem } from './problems';
import { RIGHT_LEVEL } from './rights';

const log = logOf('api');

/** From where and under which number somebody asks. */
export interface Asked {
	request: Request;
	url: URL;
	/** below /api/v1 */
	path: string;
	/** the number of the request, as the log has it */
	number: string;
	address: string;
}

const NO_KEY = refuse('no-key', 'This wants an API key: Authorization: Bearer pellum-… Make one under your account.');
const OFTEN = refuse('too-often', 'Too much was asked in one minute. Wait as long as Retry-After says.');

/**
 * One call: who comes, whether they may, what they ask, done once, answered, and told to the office's record. Whatever is wrong is
 * a problem (RFC 9457) with our code.
 */
export async function answerCall(house: House, asked: Asked): Promise<Response> {
	const { request, number, address } = asked;
	const found = operationAt(OPERATIONS, request.method, asked.path);
	const no = (refusal: Refusal, status?: number, headers: Record<string, string> = {}) =>
		problem(refusal, number, status, headers);
	if ('methods' in found) {
		const { methods } = found;
		return methods.length === 0
			? no(
					refuse('no-such-address', 'There is nothing at this address; /api/v1/openapi.json tells what there is.'),
					404
				)
			: no(refuse('no-such-method', `This takes ${methods.join(', ')}.`), 405, { Allow: methods.join(', ') });
	}
	const caller = callerOf(house, request.headers.get('authorization'));
	if (!caller) {
		// whoever tries keys is slowed down; a program with a wrong one is told all the same
		const wait = (await count('apiUnknown', address)) ? null : await left('apiUnknown', address);
		return wait
			? no(OFTEN, 429, { 'Retry-After': String(wait.seconds) })
			: no(NO_KEY, 401, { 'WWW-Authenticate': 'Bearer realm="Pellum"' });
	}
	const within = await count('api', caller.key);
	const { points, seconds, of } = await left('api', caller.key);
	const limits = { 'RateLimit-Policy': `"key";q=${of};w=60`, RateLimit: `"key";r=${points};t=${seconds}` };
	if (!within) return no(OFTEN, 429, { ...limits, 'Retry-After': String(seconds) });
	const response = notYours(house, caller, found, number) ?? (await done(house, caller, found, asked));
	tell(house, caller, found, request.method, address, response.status);
	for (const [name, value] of Object.entries(limits)) response.headers.set(name, value);
	return response;
}

/** What keeps this key from this operation, or its account from this thing. */
function notYours(house: House, { account, rights }: Caller, { op, part }: Found, number: string): Response | null {
	if (!rights.includes(op.right))
		return problem(refuse('no-right', `This key may not ${op.right}. Make one that may.`), number, 403);
	if (!reaches(account.level, RIGHT_LEVEL[op.right]))
		return problem(refuse('not-permitted', 'The account of this key may not do this.'), number, 403);
	if (safety(house.db).second.includes(account.level) && !hasFactor(factorsOf(house.db, account.id)))
		return problem(refuse('second-first', 'The account of this key must set up a second factor first.'), number, 403);
	if (!op.of || permitted(house.db, account, op.of.doing, op.of.kind, part[op.of.part]!)) return null;
	// whether there is one is told to nobody who may not see it
	const seen = op.of.doing !== 'see' && permitted(house.db, account, 'see', op.of.kind, part[op.of.part]!);
	return seen
		? problem(refuse('not-yours', 'Only whose it is may do this, or an owner of the office.'), number, 403)
		: problem(refuse('not-there', 'There is nothing here, or it is not for this account to see.'), number, 404);
}

/** Reads what came; a large file lies on the disk until it is its turn, so that ten at once don't fill the memory. */
async function done(house: House, caller: Caller, found: Found, asked: Asked): Promise<Response> {
	const { op } = found;
	const no = (refusal: Refusal, status?: number) => problem(refusal, asked.number, status);
	const query = queryOf(op, asked.url);
	if (isRefusal(query)) return no(query);
	if (!op.file) {
		const read = await bodyIn(op, asked.request);
		return 'no' in read ? no(read.no, read.status) : carriedOut(house, caller, found, asked, query, read.body);
	}
	const large = bodyFault(asked.request, op.file.most);
	if (large) return no(large.no, large.status);
	const whole = await arrived(house, asked.request);
	return whole(async (body) => {
		const bytes = ownBytes(await body.bytes());
		if (bytes.length === 0) return no(refuse('file-empty', 'No file came: its bytes are the body.'));
		return carriedOut(house, caller, found, asked, query, bytes);
	});
}

async function carriedOut(
	house: House,
	caller: Caller,
	{ op, part }: Found,
	{ request, url, path, number }: Asked,
	query: object,
	body: unknown
): Promise<Response> {
	const no = (refusal: Refusal, status?: number) => problem(refusal, number, status);
	const revision = revisionIn(request);
	if (isRefusal(revision)) return no(revision, 400);
	if (op.revised && op.method === 'put' && revision === null)
		return no(refuse('no-tag', 'Say by If-Match which state you have read; its ETag was in the answer.'), 428);
	const once = op.method === 'get' ? null : onceOf(caller.key, request, `${path}${url.search}`, body);
	if (isRefusal(once)) return no(once, 400);
	const call = { house, account: caller.account, part, query, body, revision };
	try {
		const known = once && before(house, once);
		if (isRefusal(known)) return no(known, known.code === 'under-way' ? 409 : 422);
		if (known) return answered(known.body, known.status, { 'Idempotency-Replayed': 'true' });
		// what is done at once is kept with its answer in one transaction; a file is taken in first
		const result =
			op.method === 'get' || op.file
				? await op.do(call)
				: inTransaction(house.db, () => {
						const now = op.do(call);
						if (once && !isRefusal(now)) keep(house, once, op.status ?? 200, textOf(now));
						return now;
					});
		if (isRefusal(result)) {
			if (once) forget(house, once);
			return no(result, result.code === 'changed-elsewhere' && revision !== null ? 412 : statusOf(result));
		}
		if (result instanceof FileAnswer) return fileResponse(result.bytes, result.media, result.name);
		const text = textOf(result);
		if (once && op.file) keep(house, once, op.status ?? 200, text);
		return answered(text, op.status ?? 200, result instanceof Revised ? { ETag: `"${result.revision}"` } : {});
	} catch (error) {
		if (once && !isFull(error) && !isBusy(error)) forget(house, once);
		log.error({ err: error, request: number, path: op.path }, 'a call failed');
		return isFull(error) || isBusy(error)
			? no(refuse('busy', 'Nothing can be written at the moment, and nothing was done. Ask again in a moment.'), 503)
			: no(refuse('failed', 'Something went wrong on our side, and nothing was half done.'), 500);
	}
}

const textOf = (result: unknown): string => JSON.stringify(result instanceof Revised ? result.value : result);

const answered = (body: string, status: number, headers: Record<string, string> = {}): Response =>
	new Response(body, { status, headers: { 'Content-Type': 'application/json', ...headers } });

/**
 * Every call stands in the office's record: what changes something or takes something out each time, what only looks once an hour
 * for each key and address.
 */
function tell(
	house: House,
	{ key, account }: Caller,
	{ op }: Found,
	method: string,
	address: string,
	status: number
): void {
	const looks = op.right === 'look' && method === 'GET' && status < 400;
	if (looks && told.get(house)?.get(`${key} ${op.path}`) === hourOf(house)) return;
	try {
		note(house, { account, address }, { type: 'Called', what: `${method} /api/v1${op.path}`, status });
		if (!looks) return;
		const hours = told.get(house) ?? new Map<string, string>();
		told.set(house, hours.set(`${key} ${op.path}`, hourOf(house)));
	} catch (error) {
		// the answer stands without its line
		if (!isBusy(error) && !isFull(error)) throw error;
	}
}
const told = new WeakMap<House, Map<string, string>>();
const hourOf = (house: House): string => house.now().toISOString().slice(0, 13);
