import http from 'node:http';
import https from 'node:https';
import type { House } from '../house';
import { listedHosts, lookupOutside } from './address';

const LIMIT_SECONDS = 15;
const MOST = 8_000_000;

/**
 * Fetches a file from outside by GET; null where nothing came, whatever the reason. What leads into the own network is not asked,
 * unless an owner has listed its host; nothing is followed elsewhere.
 */
export function fetchOutside(house: House, address: string): Promise<Uint8Array | null> {
	return new Promise((resolve) => {
		let url: URL;
		try {
			url = new URL(address);
		} catch {
			return resolve(null);
		}
		const listed = listedHosts(house).includes(url.host);
		const request = (url.protocol === 'https:' ? https : http).request(
			url,
			{
				signal: AbortSignal.timeout(LIMIT_SECONDS * 1000),
				agent: false,
				...(!listed && { lookup: lookupOutside }),
				headers: { 'User-Agent': 'Pellum' }
			},
			(response) => {
				const parts: Buffer[] = [];
				let size = 0;
				response.on('data', (part: Buffer) => {
					size += part.length;
					if (size > MOST) response.destroy();
					else parts.push(part);
				});
				response.on('close', () =>
					resolve(response.complete && response.statusCode === 200 ? Buffer.concat(parts) : null)
				);
			}
		);
		request.on('error', () => resolve(null));
		request.end();
	});
}
