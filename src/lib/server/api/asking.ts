import type { TObject } from '@sinclair/typebox';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { bodyFault, bodyOf } from '../bodies';
import { border } from '../border';
import type { Operation } from './operation';

/** Which operation is asked for, and what came with it. */

const MOST = 1024 * 1024;

export interface Found {
	op: Operation;
	part: Record<string, string>;
}

/** The operation at this address; where there is none for the method, those that there are. */
export function operationAt(operations: Operation[], method: string, path: string): Found | { methods: string[] } {
	const asked = path.split('/').filter(Boolean);
	const here = operations.flatMap((op): Found[] => {
		const wanted = op.path.split('/').filter(Boolean);
		if (wanted.length !== asked.length) return [];
		const part: Record<string, string> = {};
		for (const [i, piece] of wanted.entries()) {
			if (piece.startsWith('{')) part[piece.slice(1, -1)] = asked[i]!;
			else if (piece !== asked[i]) return [];
		}
		return [{ op, part }];
	});
	// /packets/link is none of /packets/{packet}: the plainer address is meant
	const plain = here.filter(
		({ part }) => Object.keys(part).length === Math.min(...here.map((h) => Object.keys(h.part).length))
	);
	return (
		plain.find(({ op }) => op.method === method.toLowerCase()) ?? {
			methods: plain.map(({ op }) => op.method.toUpperCase())
		}
	);
}

const borders = new WeakMap<object, ReturnType<typeof border>>();
function checked(schema: object, value: unknown): unknown {
	const check = borders.get(schema) ?? border(schema as TObject);
	borders.set(schema, check);
	return check(value);
}

/** The query by its schema: numbers are numbers, and what it does not name is refused. */
export function queryOf(op: Operation, url: URL): object | Refusal {
	const query: Record<string, unknown> = {};
	for (const [name, text] of url.searchParams) {
		if (name in query) return refuse('malformed', `“${name}” is given twice.`, name);
		const schema = op.query?.properties[name];
		query[name] = schema?.['type'] === 'integer' ? Number(text) : text;
	}
	if (op.query) return checked(op.query, query) as object | Refusal;
	const [strange] = Object.keys(query);
	return strange === undefined ? {} : refuse('malformed', `There is no “${strange}” to be asked with here.`, strange);
}

/** The JSON that the operation takes, by its schema. */
export async function bodyIn(
	op: Operation,
	request: Request
): Promise<{ body: unknown } | { no: Refusal; status: number }> {
	const large = bodyFault(request, MOST);
	if (large) return large;
	if (!op.body) return { body: undefined };
	const type = request.headers.get('content-type')?.split(';')[0]?.trim() ?? '';
	if (type !== 'application/json' && !type.endsWith('+json'))
		return { no: refuse('no-json', 'The body must be JSON, and say so: Content-Type: application/json.'), status: 415 };
	const body = checked(op.body, await bodyOf(request));
	return isRefusal(body) ? { no: body, status: 422 } : { body };
}

/** The revision in an entity tag (RFC 9110 §8.8.3); null where none is given. Refuses `bad-tag`. */
export function revisionIn(request: Request): number | null | Refusal {
	const tag = request.headers.get('if-match');
	if (tag === null) return null;
	const [, revision] = /^"(\d{1,9})"$/.exec(tag.trim()) ?? [];
	return revision ? Number(revision) : refuse('bad-tag', 'If-Match must be the ETag of the answer that was read.');
}
