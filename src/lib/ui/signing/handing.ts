import type { Words } from '../../words/words';
import { patient } from '../post';
import { sentenceOf } from './keeper';

/**
 * The device goes to a guest: their own page opens here, and the way back is kept in this tab. `base`: `/s/TOKEN` of the host.
 * @returns why not, in words
 */
export async function handTo(base: string, guest: string, back: string, words: Words): Promise<string | null> {
	const response = await patient(`${base}/guest`, {
		method: 'POST',
		headers: { 'Content-Type': 'application/json' },
		body: JSON.stringify({ guest })
	}).catch(() => null);
	const got = (await response?.json().catch(() => ({}))) as { token?: string; code?: string; say?: string } | undefined;
	if (!got?.token) return got ? sentenceOf(got, words) : words('error.offline');
	sessionStorage.setItem('pellum-host', back);
	location.assign(`/s/${got.token}`);
	return null;
}
