import createModule from '@neslinesli93/qpdf-wasm';
import { packageFile } from './assets';

/**
 * The file rewritten from its object tree: nothing unreachable is left, every object stands once, no object streams.
 * Throws where qpdf can't read it. An instance is used once, since its main function may not be entered again.
 */
export async function normalised(bytes: Uint8Array): Promise<Uint8Array> {
	const notes: string[] = [];
	const qpdf = await createModule({
		locateFile: () => packageFile('@neslinesli93/qpdf-wasm/dist/qpdf.wasm'),
		noInitialRun: true,
		print: () => {},
		printErr: (line: string) => notes.push(line)
	} as unknown as Parameters<typeof createModule>[0]);
	const files = qpdf.FS as unknown as {
		writeFile(name: string, data: Uint8Array): void;
		readFile(name: string): Uint8Array;
	};
	files.writeFile('/in.pdf', bytes);
	const exit = qpdf.callMain([
		'--object-streams=disable',
		'--deterministic-id',
		'--warning-exit-0',
		'/in.pdf',
		'/out.pdf'
	]);
	if (exit !== 0) throw new Error(`qpdf could not rewrite the file: ${notes.join(' ').slice(0, 300)}`);
	return files.readFile('/out.pdf');
}
