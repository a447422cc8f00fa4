import { Zip, ZipPassThrough } from 'fflate';

/** One file of a ZIP; its folders stand in its name, before strokes. */
export interface ZipFile {
	name: string;
	bytes: Uint8Array;
}

/**
 * A ZIP made while it is fetched: each part is asked for its files when the one before has gone, so that no more than one part's are in
 * memory, and others are answered between two. A part may have none.
 */
export function streamedZip(parts: readonly (() => ZipFile[] | Promise<ZipFile[]>)[]): ReadableStream<Uint8Array> {
	let next = 0;
	let zip: Zip;
	return new ReadableStream<Uint8Array>({
		start(to) {
			zip = new Zip((error, chunk, last) => {
				if (error) return to.error(error);
				to.enqueue(chunk);
				if (last) to.close();
			});
		},
		async pull() {
			for (;;) {
				const part = parts[next++];
				if (!part) return zip.end();
				await new Promise((go) => setImmediate(go));
				const files = await part();
				for (const { name, bytes } of files) {
					const file = new ZipPassThrough(name);
					zip.add(file);
					file.push(bytes, true);
				}
				// a pull that brings nothing is not asked again
				if (files.length > 0) return;
			}
		},
		cancel: () => zip.terminate()
	});
}
