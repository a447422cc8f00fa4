import type { Answers, FileAnswer } from '../../core/field';
import { patient } from '../post';
import type { Names } from '../../core/packet';
import type { Values } from '../../core/refusal';
import { ENGLISH, type Words } from '../../words/words';

/** What came of keeping or finishing: the sentence and the field it is about where it did not work. */
export interface Kept {
	ok: boolean;
	say: string;
	at?: string;
	savedAt?: string;
	/** it is kept, but the page shows something else by now */
	stale?: boolean;
}

/** What is given besides answers on finishing. */
export interface Besides {
	names: Names;
	/** how a host knows their guests, by the guest's id */
	guests: Record<string, string>;
}

/** Where answers go: to the server while signing, nowhere in a rehearsal. */
export interface Keeper {
	keep(answers: Answers): Promise<Kept>;
	finish(answers: Answers, besides: Besides): Promise<Kept>;
	/** a picture to sign with, or the sentence that says why not */
	picture(file: Blob): Promise<{ digest: string } | string>;
	/** a file for a field, or the sentence that says why not */
	file(field: string, file: File): Promise<FileAnswer | string>;
	/** address under which pictures are fetched */
	pictures: string;
}

/** What the server says where something was refused, or what SvelteKit says where it failed. */
interface Said {
	code?: string;
	say?: string;
	values?: Values;
	message?: string;
	at?: string;
}

/** The server's "no" in the page's language. */
export function sentenceOf(said: Said, words: Words): string {
	if (said.code !== undefined && said.say !== undefined)
		return words.refusal({ code: said.code, say: said.say, ...(said.values && { values: said.values }) });
	return said.message ?? words('error.failed');
}

/** Keeps answers on the server, under a person's link. `base`: `/s/TOKEN`. */
export function serverKeeper(base: string, words: () => Words): Keeper {
	return {
		pictures: `${base}/pictures`,
		keep: (answers) => send(`${base}/answers`, 'PUT', { answers }, words()),
		finish: (answers, besides) => send(`${base}/finish`, 'POST', { answers, ...besides }, words()),
		picture: async (file) => upload<{ digest: string }>(`${base}/picture`, file, words()),
		file: (field, file) =>
			upload<FileAnswer>(
				`${base}/files?field=${encodeURIComponent(field)}&name=${encodeURIComponent(file.name)}`,
				file,
				words()
			)
	};
}

/** Sends JSON under a person's link; what came of it, with the sentence in the page's language. */
export async function send(url: string, method: string, data: object, words: Words): Promise<Kept> {
	try {
		const response = await patient(url, {
			method,
			headers: { 'Content-Type': 'application/json' },
			body: JSON.stringify(data)
		});
		const body = (await response.json()) as Partial<Kept> & Said;
		return { ...body, ok: response.ok, say: response.ok ? '' : sentenceOf(body, words) };
	} catch {
		return { ok: false, say: words('error.offline') };
	}
}

/** Hands a file in as the body of a POST; gives what the server answers, or the sentence that says why not. */
export async function upload<T>(url: string, file: Blob, words: Words = ENGLISH): Promise<T | string> {
	try {
		const response = await patient(url, {
			method: 'POST',
			headers: { 'Content-Type': 'application/octet-stream' },
			body: file
		});
		const body = (await response.json()) as T & Said;
		return response.ok ? body : sentenceOf(body, words);
	} catch {
		return words('error.offline');
	}
}

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
