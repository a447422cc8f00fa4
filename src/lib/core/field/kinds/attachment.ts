import { Type } from '@sinclair/typebox';
import type { Field } from '../../packet/plan';
import { refuse, refuseWith } from '../../refusal';
import { FileAnswer, isFile, MOST_MEGABYTES } from '../answer';
import { closed, defineKind } from '../kind';

/** Files that can be handed in, by what they are and not by what they are called. */
export const FILE_TYPES = {
	pdf: 'application/pdf',
	docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	png: 'image/png',
	jpeg: 'image/jpeg'
} as const;

/** A file from the person. It goes into the sealed packet unchanged, and its name is written at the place. */
export const attachment = defineKind({
	kind: 'attachment',
	name: 'attachment',
	letter: 'A',
	size: { width: 180, height: 20 },
	settings: Type.Object(
		{
			/** a comma between: `pdf,docx,png,jpeg`; without it, all of them */
			types: Type.Optional(Type.String({ pattern: '^(pdf|docx|png|jpeg)(,(pdf|docx|png|jpeg))*$' })),
			megabytes: Type.Optional(Type.Integer({ minimum: 1, maximum: MOST_MEGABYTES }))
		},
		closed
	),
	answer: FileAnswer,
	filledBy: 'person',
	is: isFile,
	wrong: refuse('file-wrong', 'This place takes a file.'),
	control: () => 'file',
	value: (_question, answer) => answer.name,
	check: (field, answer) => {
		const { media, megabytes } = limitsOfFile(field);
		if (!media.includes(answer.media))
			return refuseWith('file-type', `Allowed: ${typesInWords(field)}.`, { types: typeNames(field) });
		if (answer.bytes > megabytes * 1024 * 1024)
			return refuseWith('file-too-large', `The file may have ${megabytes} MB at most.`, { megabytes });
		return null;
	},
	shown: (_field, answer) => answer.name,
	data: (answer) => answer.name,
	sample: () => ({ file: '0'.repeat(64), name: 'Sample.pdf', media: FILE_TYPES.pdf, bytes: 1024 })
});

/** What a place takes: media types, and megabytes at most. */
export function limitsOfFile(field: Field): { media: string[]; megabytes: number } {
	return {
		media: typesOf(field).map((type) => FILE_TYPES[type]),
		megabytes: (field.settings['megabytes'] as number | undefined) ?? MOST_MEGABYTES
	};
}

/** What kinds of files a place takes, as people call them. */
export const typeNames = (field: Field): string[] => typesOf(field).map((type) => type.toUpperCase());

export function typesInWords(field: Field): string {
	const names = typeNames(field);
	return names.length === 1 ? names[0]! : `${names.slice(0, -1).join(', ')} or ${names[names.length - 1]}`;
}

function typesOf(field: Field): (keyof typeof FILE_TYPES)[] {
	const types = field.settings['types'];
	return (typeof types === 'string' ? types.split(',') : Object.keys(FILE_TYPES)) as (keyof typeof FILE_TYPES)[];
}
