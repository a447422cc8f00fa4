import { fileTypeFromBuffer } from 'file-type';
import { limitsOfFile, typesInWords, type FileAnswer } from '../../core/field';
import type { Field } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { markPictureInWorker } from '../../press';
import { keepBlob } from '../blobs';
import type { House } from '../house';
import { bareName } from '../names';

/**
 * Keeps a file that was handed in for a field, unchanged, under its SHA-256. What it is is judged by its content,
 * whatever it is called. Refuses `file-empty`, `file-large`, `file-type`.
 */
export async function keepFile(
	house: House,
	field: Field,
	name: string,
	bytes: Uint8Array
): Promise<FileAnswer | Refusal> {
	const { media, megabytes } = limitsOfFile(field);
	if (bytes.length === 0) return refuse('file-empty', 'The file is empty (0 bytes).');
	if (bytes.length > megabytes * 1024 * 1024) return refuse('file-large', `The file may have ${megabytes} MB at most.`);
	const type = await fileTypeFromBuffer(bytes);
	if (!type || !media.includes(type.mime))
		return refuse(
			'file-type',
			`This place takes ${typesInWords(field)}; this is ${type ? type.ext.toUpperCase() : 'something else'}.`
		);
	const file = keepBlob(house.db, bytes, type.mime, house.now());
	return { file, name: bareName(name).slice(-200) || 'File', media: type.mime, bytes: bytes.length };
}

/** Keeps a picture to stand on a page, made into a PNG. Refuses `not-a-picture`, `file-too-large`. */
export async function keepPicture(house: House, bytes: Uint8Array): Promise<{ digest: string } | Refusal> {
	if (bytes.length > 10 * 1024 * 1024) return refuse('file-too-large', 'The picture may have 10 MB at most.');
	const picture = await markPictureInWorker(bytes);
	if (isRefusal(picture)) return picture;
	return { digest: keepBlob(house.db, picture.bytes, 'image/png', house.now(), picture.digest) };
}
