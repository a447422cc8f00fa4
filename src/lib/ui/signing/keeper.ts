import type { Answers, FileAnswer } from '../../core/field';
import type { Names } from '../../core/packet';

/** What came of keeping or finishing: the sentence and the field it is about where it did not work. */
export interface Kept {
	ok: boolean;
	say: string;
	at?: string;
	savedAt?: string;
}

/** Where answers go: to the server while signing, nowhere in a rehearsal. */
export interface Keeper {
	keep(answers: Answers): Promise<Kept>;
	finish(answers: Answers, names: Names): Promise<Kept>;
	/** a picture to sign with, or the sentence that says why not */
	picture(file: File): Promise<{ digest: string } | string>;
	/** a file for a field, or the sentence that says why not */
	file(field: string, file: File): Promise<FileAnswer | string>;
	/** address under which pictures are fetched */
	pictures: string;
}

const OFFLINE = 'No connection. What you entered is kept in this tab and saved when it is back.';

/** Keeps answers on the server, under a person's link. `base`: `/s/TOKEN`. */
export function serverKeeper(base: string): Keeper {
	return {
		pictures: `${base}/pictures`,
		keep: (answers) => send(`${base}/answers`, 'PUT', { answers }),
		finish: (answers, names) => send(`${base}/finish`, 'POST', { answers, names }),
		picture: async (file) => (await upload<{ digest: string }>(`${base}/picture`, file)) as { digest: string } | string,
		file: (field, file) =>
			upload<FileAnswer>(`${base}/files?field=${encodeURIComponent(field)}&name=${encodeURIComponent(file.name)}`, file)
	};
}

async function send(url: string, method: string, data: object): Promise<Kept> {
	try {
		const response = await fetch(url, {
			method,
			headers: { 'Content-Type': 'application/json' },
			body: JSON.stringify(data)
		});
		const body = (await response.json()) as Partial<Kept> & { message?: string };
		return {
			...body,
			ok: response.ok,
			say: body.say ?? body.message ?? 'It did not work. What you entered is kept here.'
		};
	} catch {
		return { ok: false, say: OFFLINE };
	}
}

/** Hands a file in as the body of a POST; gives what the server answers, or the sentence that says why not. */
export async function upload<T>(url: string, file: File): Promise<T | string> {
	try {
		const response = await fetch(url, {
			method: 'POST',
			headers: { 'Content-Type': 'application/octet-stream' },
			body: file
		});
		const body = (await response.json()) as T & { say?: string; message?: string };
		return response.ok ? body : (body.say ?? body.message ?? 'It could not be taken in.');
	} catch {
		return 'No connection. Choose the file again in a moment; everything else is kept.';
	}
}
