import type { Refusal } from '../../core/refusal';
import { statusOf } from '../web';

const TITLES: Record<number, string> = {
	400: 'Not understood',
	401: 'No key',
	403: 'Not permitted',
	404: 'Not there',
	405: 'Not so',
	409: 'Otherwise by now',
	410: 'Over',
	411: 'No length',
	412: 'Changed meanwhile',
	413: 'Too large',
	415: 'Another kind',
	422: 'Refused',
	428: 'Say which',
	429: 'Too often',
	500: 'Our fault',
	503: 'Later'
};

/** A refusal as problem details (RFC 9457): our code for programs, our sentence for people. */
export function problem(
	refusal: Refusal,
	request: string,
	status = statusOf(refusal),
	headers: Record<string, string> = {}
): Response {
	const { code, say, at } = refusal;
	const body = {
		type: `urn:pellum:problem:${code}`,
		title: TITLES[status] ?? 'Refused',
		status,
		code,
		detail: say,
		...(at !== undefined && { pointer: at }),
		instance: `urn:pellum:request:${request}`
	};
	return new Response(JSON.stringify(body), {
		status,
		headers: { 'Content-Type': 'application/problem+json', ...headers }
	});
}
