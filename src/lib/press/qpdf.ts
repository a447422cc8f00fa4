import createModule from '@neslinesli93/qpdf-wasm';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { packageFile } from './assets';
import { isLarge, shareable } from './memory';

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
 */
export async function normalised(bytes: Uint8Array): Promise<Uint8Array> {
	if (!isLarge(bytes.length)) return rewritten(bytes, null);
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-qpdf-'));
	try {
		return await rewritten(bytes, folder);
	} finally {
		rmSync(folder, { recursive: true, force: true });
	}
}

async function rewritten(bytes: Uint8Array, folder: string | null): Promise<Uint8Array> {
	const notes: string[] = [];
	const qpdf = await createModule({
		locateFile: () => packageFile('@neslinesli93/qpdf-wasm/dist/qpdf.wasm'),
		noInitialRun: true,
		print: () => {},
		printErr: (line: string) => notes.push(line)
	} as unknown as Parameters<typeof createModule>[0]);
	const files = qpdf.FS as unknown as Files;
	files.mkdir('/work');
	if (folder) {
		writeFileSync(path.join(folder, 'in.pdf'), bytes);
		files.mount((qpdf as unknown as { NODEFS: unknown }).NODEFS, { root: folder }, '/work');
	} else files.writeFile('/work/in.pdf', bytes, { canOwn: true });
	const exit = qpdf.callMain([
		'--object-streams=disable',
		'--deterministic-id',
		'--warning-exit-0',
		'/work/in.pdf',
		'/work/out.pdf'
	]);
	if (exit !== 0) throw new Error(`qpdf could not rewrite the file: ${notes.join(' ').slice(0, 300)}`);
	return folder ? shareable(readFileSync(path.join(folder, 'out.pdf'))) : files.readFile('/work/out.pdf');
}
