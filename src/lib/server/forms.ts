import { cleanText, cutText, oneLine } from '../core/clean-text';

/** A form as it came, each text clean. */
export interface Form {
	/** a text of one line, '' where there is none */
	text(name: string, most?: number): string;
	/** a text that may have lines */
	lines(name: string, most?: number): string;
	/** as it was typed, for passwords */
	raw(name: string): string;
	/** whether a box is ticked */
	on(name: string): boolean;
	/** a file that has something in it */
	file(name: string): File | null;
	/** all that have something in them */
	files(name: string): File[];
	all(name: string): string[];
	/** names and texts of all that are filled in */
	entries(): [string, string][];
}

export async function formIn(request: Request): Promise<Form> {
	return formOf(await request.formData());
}

export function formOf(form: FormData): Form {
	const raw = (name: string): string => {
		const value = form.get(name);
		return typeof value === 'string' ? value : '';
	};
	return {
		raw,
		text: (name, most = 200) => cutText(oneLine(raw(name)), most),
		lines: (name, most = 2000) => cutText(cleanText(raw(name)), most),
		on: (name) => raw(name) === 'on',
		file: (name) => {
			const value = form.get(name);
			return value instanceof File && value.size > 0 ? value : null;
		},
		files: (name) => form.getAll(name).filter((one): one is File => one instanceof File && one.size > 0),
		all: (name) => form.getAll(name).flatMap((one) => (typeof one === 'string' ? [cutText(oneLine(one), 200)] : [])),
		entries: () =>
			[...form].flatMap(([name, value]) =>
				typeof value === 'string' && value !== '' ? [[name, cutText(oneLine(value), 200)]] : []
			)
	};
}
