import { expose } from 'comlink';
import { seePicture, type PictureFault, type Side } from '../../../core/identity';
import { straightened } from '../../../core/picture';

/** What came of looking at a picture: what is wrong with it, and the document cut out of it where one was found. */
export interface Seen {
	faults: PictureFault[];
	/** JPEG */
	picture: Blob;
}

/** A picture is handed in no larger than this, in pixels. */
const MOST = 2000;
/** What is left around a document: enough for its edges to be found again where it is judged. */
const AROUND = 0.06;

const looker = {
	/** @param file a picture of any kind that the browser reads; upright by what the camera noted. Throws for anything else. */
	async see(file: Blob, side: Side): Promise<Seen> {
		const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
		const scale = Math.min(1, MOST / Math.max(bitmap.width, bitmap.height));
		const canvas = new OffscreenCanvas(Math.round(bitmap.width * scale), Math.round(bitmap.height * scale));
		const pen = canvas.getContext('2d', { willReadFrequently: true })!;
		pen.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
		const pixels = pen.getImageData(0, 0, canvas.width, canvas.height);
		const { faults, document } = seePicture(pixels, side === 'holder' ? 'holder' : 'document');
		// what is too small by our own making is not: the picture that came counts
		if (document && faults.length === 0) {
			const flat = straightened(pixels, document.corners, MOST, AROUND);
			canvas.width = flat.width;
			canvas.height = flat.height;
			pen.putImageData(new ImageData(new Uint8ClampedArray(flat.data), flat.width, flat.height), 0, 0);
		}
		return { faults, picture: await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.86 }) };
	}
};
export type Looker = typeof looker;
expose(looker);
