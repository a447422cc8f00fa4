import createModule from '@neslinesli93/qpdf-wasm';
import { closeSync, fstatSync, mkdtempSync, openSync, readFileSync, readSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { packageFile } from './assets';
import { isLarge, sweepMemory } from './memory';

type Files = {
	mkdir(name: string): void;
	mount(kind: unknown, options: { root: string }, name: string): void;
	writeFile(name: string, data: Uint8Array, how: { canOwn: boolean }): void;
	readFile(name: string): Uint8Array;
};

/**
 * The file rewritten from its object tree: nothing unreachable is left, every object stands once, no object streams.
 * Throws where qpdf can't read it. An instance is used once, since its main function may not be entered again. A large file
 * goes in and out over the disk: within the instance both would lie in memory, and the one written in many sizes.
 * @param file its bytes are let go meanwhile where they are many, and are back where it threw
 */
export async function normalised(file: { bytes: Uint8Array }): Promise<Uint8Array> {
	if (!isLarge(file.bytes.length)) return rewritten(file.bytes, null);
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-qpdf-'));
	const into = path.join(folder, 'in.pdf');
	writeFileSync(into, file.bytes);
	file.bytes = NOTHING;
	sweepMemory();
	try {
		return await rewritten(null, folder);
	} catch (error) {
		file.bytes = readFileSync(into);
		throw error;
	} finally {
		rmSync(folder, { recursive: true, force: true });
	}
}

/** A file read straight into memory that threads share. */
function sharedFile(name: string): Uint8Array {
	const file = openSync(name, 'r');
	try {
		const bytes = new Uint8Array(new SharedArrayBuffer(fstatSync(file).size));
		for (let at = 0; at < bytes.length;) {
			const read = readSync(file, bytes, at, bytes.length - at, at);
			if (read === 0) break;
			at += read;
		}
		return bytes;
	} finally {
		closeSync(file);
	}
}

const NOTHING = new Uint8Array(0);

async function rewritten(bytes: Uint8Array | null, folder: string | null): Promise<Uint8Array> {
	const notes: string[] = [];
	const qpdf = await createModule({
		locateFile: () => packageFile('@neslinesli93/qpdf-wasm/dist/qpdf.wasm'),
		noInitialRun: true,
		print: () => {},
		printErr: (line: string) => notes.push(line)
	} as unknown as Parameters<typeof createModule>[0]);
	const files = qpdf.FS as unknown as Files;
	files.mkdir('/work');
	if (folder) files.mount((qpdf as unknown as { NODEFS: unknown }).NODEFS, { root: folder }, '/work');
	else files.writeFile('/work/in.pdf', bytes!, { canOwn: true });
	const exit = qpdf.callMain([
		'--object-streams=disable',
		'--deterministic-id',
		'--warning-exit-0',
		'/work/in.pdf',
		'/work/out.pdf'
	]);
	if (exit !== 0) throw new Error(`qpdf could not rewrite the file: ${notes.join(' ').slice(0, 300)}`);
	return folder ? sharedFile(path.join(folder, 'out.pdf')) : files.readFile('/work/out.pdf');
}
