import { fileTypeFromBuffer } from 'file-type';
import { limitsOfFile, typeNames, typesInWords, type FileAnswer } from '../../core/field';
import type { Field } from '../../core/packet';
import { isRefusal, refuse, refuseWith, type Refusal } from '../../core/refusal';
import { markPictureInWorker } from '../../press';
import { keepBlob } from '../blobs';
import type { House } from '../house';
import { bareName, shortName } from '../names';

const PROGRAMS = new Set(['exe', 'elf', 'macho', 'msi', 'wasm', 'apk', 'jar', 'dmg', 'deb', 'rpm', 'class', 'lnk']);

/**
 * Keeps a file that was handed in for a field, unchanged, under its SHA-256. What it is is judged by its content,
 * whatever it is called. Refuses `file-empty`, `file-too-large`, `file-type`, `file-program`.
 */
export async function keepFile(
	house: House,
	field: Field,
	name: string,
	bytes: Uint8Array
): Promise<FileAnswer | Refusal> {
	const { media, megabytes } = limitsOfFile(field);
	if (bytes.length === 0) return refuse('file-empty', 'The file is empty (0 bytes).');
	if (bytes.length > megabytes * 1024 * 1024)
		return refuseWith('file-too-large', `The file may have ${megabytes} MB at most.`, { megabytes });
	const type = await fileTypeFromBuffer(bytes);
	if (!type || !media.includes(type.mime)) {
		const said = typesInWords(field);
		const types = typeNames(field);
		// what would run is named as what it is, whatever its name says
		return PROGRAMS.has(type?.ext ?? '') ||
			/^(#!|MZ|\x7fELF)/.test(Buffer.from(bytes.subarray(0, 4)).toString('latin1'))
			? refuseWith('file-program', `That is a program. Allowed: ${said}.`, { types })
			: refuseWith('file-type', `Allowed: ${said}; this is ${type ? type.ext.toUpperCase() : 'something else'}.`, {
					types
				});
	}
	const file = keepBlob(house.db, bytes, type.mime, house.now());
	return { file, name: shortName(bareName(name)) || 'File', media: type.mime, bytes: bytes.length };
}

/** Keeps a picture to stand on a page, made into a PNG. Refuses `not-a-picture`, `file-too-large`. */
export async function keepPicture(house: House, bytes: Uint8Array): Promise<{ digest: string } | Refusal> {
	if (bytes.length > 10 * 1024 * 1024)
		return refuseWith('file-too-large', 'The file may have 10 MB at most.', { megabytes: 10 });
	const picture = await markPictureInWorker(bytes);
	if (isRefusal(picture)) return picture;
	return { digest: keepBlob(house.db, picture.bytes, 'image/png', house.now(), picture.digest) };
}
