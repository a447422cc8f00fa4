import { findDocument, greyOf, mean, sharpness, smaller, type FoundDocument, type Pixels } from '../picture';
import { faultsOf, glareOf, MEASURED, type Measures, type PictureFault } from './picture';

/** A picture as it is judged: what was measured, what is wrong with it, and where the document lies. */
export interface PictureSeen {
	measures: Measures;
	faults: PictureFault[];
	document: FoundDocument | null;
}

/** Looks at a picture once: in the browser as soon as it is taken, and where it is judged. */
export function seePicture(picture: Pixels, side: 'document' | 'holder'): PictureSeen {
	const grey = greyOf(picture.data, picture.width, picture.height);
	const small = smaller(grey, MEASURED);
	const document = side === 'document' ? findDocument(grey) : null;
	const measures: Measures = {
		width: picture.width,
		height: picture.height,
		light: Math.round(mean(small)),
		sharp: Math.round(sharpness(small)),
		glare: Math.round(10 * glareOf(small)) / 10,
		document: Math.round(100 * (document?.share ?? 0)),
		cut: document?.cut ?? 0
	};
	return { measures, faults: faultsOf(measures, side), document };
}
