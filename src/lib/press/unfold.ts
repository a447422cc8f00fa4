import { Unzip, UnzipInflate } from 'fflate';

/**
 * The files in a ZIP (APPNOTE 6.3) by name, without believing what it says of its own sizes: in pieces, so that a bomb is noticed
 * before it has gone off.
 */
export function unfold(
	bytes: Uint8Array,
	most: { bytes: number; parts: number }
): Map<string, Uint8Array> | 'heavy' | 'broken' {
	let size = 0;
	let count = 0;
	let heavy = false;
	const chunks = new Map<string, Uint8Array[]>();
	const unzip = new Unzip((file) => {
		count++;
		if (count > most.parts) heavy = true;
		if (heavy) return;
		file.ondata = (error, chunk) => {
			if (error) throw error;
			size += chunk.length;
			if (size > most.bytes) {
				heavy = true;
				file.terminate();
				return;
			}
			const all = chunks.get(file.name);
			if (all) all.push(chunk);
			else chunks.set(file.name, [chunk]);
		};
		file.start();
	});
	unzip.register(UnzipInflate);
	try {
		for (let at = 0; at < bytes.length && !heavy; at += 65_536)
			unzip.push(bytes.subarray(at, at + 65_536), at + 65_536 >= bytes.length);
	} catch {
		if (!heavy) return 'broken';
	}
	if (heavy) return 'heavy';
	return new Map([...chunks].map(([name, all]) => [name, new Uint8Array(Buffer.concat(all))]));
}
