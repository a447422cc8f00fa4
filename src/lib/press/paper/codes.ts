import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import { readCode, type PageCode } from '../../core/paper';
import type { Corners, Pixels } from '../../core/picture';
import { packageBytes } from '../assets';

/** The codes of our pages in a picture, each with its corners: those of its own top left, top right, bottom right, bottom left. */
export interface FoundCode extends PageCode {
	corners: Corners | null;
}

let ready: Promise<unknown> | null = null;

/** Reads them; other codes that stand on somebody's page are passed over. */
export async function codesIn({ width, height, data }: Pixels): Promise<FoundCode[]> {
	ready ??= Promise.resolve(
		prepareZXingModule({
			overrides: { wasmBinary: new Uint8Array(packageBytes('zxing-wasm/reader/zxing_reader.wasm')).buffer },
			fireImmediately: true
		})
	);
	await ready;
	const image = { width, height, data: new Uint8ClampedArray(data), colorSpace: 'srgb' } as unknown as ImageData;
	const found = await readBarcodes(image, { formats: ['QRCode'], tryHarder: true, maxNumberOfSymbols: 4 });
	return found.flatMap(({ text, position }) => {
		const code = readCode(text);
		if (!code) return [];
		const { topLeft, topRight, bottomRight, bottomLeft } = position;
		return [{ ...code, corners: [topLeft, topRight, bottomRight, bottomLeft] as const }];
	});
}
