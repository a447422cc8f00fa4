import http from 'node:http';
import https from 'node:https';
import { isRefusal } from '../../core/refusal';
import type { House } from '../house';
import { judgeAddress, listedHosts, lookupOutside } from './address';

/** Asking a server outside for something, or telling it: within bounds, and nothing is followed elsewhere. */

/** The whole of it, from looking the name up to the last byte of the answer. */
const LIMIT_SECONDS = 15;

export interface Question {
	method: 'GET' | 'POST';
	headers?: http.OutgoingHttpHeaders;
	body?: string | Buffer;
	/** so many bytes of the answer are read */
	most: number;
}

/** `whole`: nothing of it was left unread. `status` null: nothing came, and why. */
export type Answered =
	{ status: number; bytes: Buffer; whole: boolean; location: string } | { status: null; why: string };

/** What leads into the own network is not asked, unless an owner has listed its host. @param url as `judgeAddress` gives it */
export function askOutside(house: House, url: URL, { method, headers, body, most }: Question): Promise<Answered> {
	const listed = listedHosts(house).includes(url.host);
	return new Promise((resolve) => {
		const seconds = house.config.hookSeconds ?? LIMIT_SECONDS;
		const limit = AbortSignal.timeout(seconds * 1000);
		const request = (url.protocol === 'https:' ? https : http).request(
			url,
			{
				method,
				signal: limit,
				// one that was left open may be shut by now
				agent: false,
				...(!listed && { lookup: lookupOutside }),
				headers: {
					'User-Agent': 'Pellum',
					...(body !== undefined && { 'Content-Length': Buffer.byteLength(body) }),
					...headers
				}
			},
			(response) => {
				const parts: Buffer[] = [];
				let size = 0;
				const end = () => {
					const { statusCode = 0, headers: said, complete } = response;
					const whole = complete && size <= most;
					resolve({ status: statusCode, bytes: Buffer.concat(parts), whole, location: said.location ?? '' });
					response.destroy();
				};
				response.on('data', (part: Buffer) => {
					parts.push(part.subarray(0, Math.max(0, most - size)));
					size += part.length;
					if (size > most) end();
				});
				response.on('end', end);
				response.on('error', end);
			}
		);
		request.on('error', (error: NodeJS.ErrnoException) => {
			const why = limit.aborted ? `no answer within ${seconds} s` : error.message || (error.code ?? 'no connection');
			resolve({ status: null, why });
		});
		request.end(body);
	});
}

const MOST_FETCHED = 8_000_000;

/** Fetches a file by http or https; null where it didn't come whole, whatever the reason. */
export async function fetchOutside(house: House, address: string): Promise<Uint8Array | null> {
	if (!URL.canParse(address)) return null;
	const came = await askOutside(house, new URL(address), { method: 'GET', most: MOST_FETCHED });
	return came.status === 200 && came.whole ? came.bytes : null;
}

/** Sends JSON to an address that was judged when it was entered; null where it was taken, else why not. */
export async function sendOutside(house: House, address: string, body: Buffer): Promise<string | null> {
	const url = judgeAddress(house, address);
	if (isRefusal(url)) return url.say;
	const headers = { 'Content-Type': 'application/json' };
	const came = await askOutside(house, url, { method: 'POST', headers, body, most: 0 });
	if (came.status === null) return came.why;
	return came.status >= 200 && came.status < 300 ? null : `${url.host} answered with ${came.status}`;
}
