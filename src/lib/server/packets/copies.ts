import { isFile, questions, type FileAnswer } from '../../core/field';
import { distinctNames, nameByPattern, safeName } from '../../core/keeping';
import { isOpen, type SentPacket } from '../../core/packet';
import { readBlob } from '../blobs';
import type { Db } from '../db';
import type { House } from '../house';
import { keepingSetting } from '../filing/setting';
import { templateTitle } from './ordering';

export interface CopyFile {
	name: string;
	digest: string;
	media: string;
	bytes: Buffer;
}

/** What can be fetched of a sealed packet: its papers by id, what went along unchanged, what people handed in, then the evidence sheet; empty until it is sealed. */
export function copiesOf(db: Db, packet: SentPacket): { what: string; name: string; digest: string }[] {
	if (packet.evidence === null) return [];
	const { papers, attachments } = packet.plan;
	const name = namedIn(db, packet);
	const distinct = distinctNames();
	return [
		...papers.flatMap((p) =>
			packet.sealed[p.id] ? [{ what: p.id, name: name(p.name, papers.length > 1), digest: packet.sealed[p.id]! }] : []
		),
		...attachments.map((a) => ({ what: a.id, name: name(a.name), digest: a.digest })),
		...handedIn(packet).map(({ field, answer }) => ({
			what: field,
			name: safeName(answer.name) || 'File',
			digest: answer.file
		})),
		{ what: 'evidence', name: name('Evidence sheet'), digest: packet.evidence }
	].map((one) => ({ ...one, name: distinct(one.name) }));
}

/** How files of this packet are called, by the organisation's pattern. `told`: also where that doesn't name the document. */
function namedIn(db: Db, packet: SentPacket): (document: string, told?: boolean) => string {
	const pattern = keepingSetting(db).fileNames;
	const facts = { ended: isOpen(packet) ? null : packet.at, template: templateTitle(db, packet) };
	return (document, told = true) => {
		const whole = told && !/\{\s*document\s*\}/.test(pattern) ? `${pattern} {document}` : pattern;
		return `${nameByPattern(whole, packet, { document: documentName(document), ...facts })}.pdf`;
	};
}

/** A document's name without the ending of the file that it was. */
const documentName = (name: string): string => name.replace(/\.(pdf|docx?|png|jpe?g)$/i, '');

/** Whether the copies are somebody's: not of whoever was left out by a rule, or spared since another one of a group signed. */
export function mayHaveCopies(packet: SentPacket, person: string): boolean {
	return packet.people[person]?.is !== 'skipped';
}

/** A file of a sealed packet: `what` is as in {@link copiesOf}. */
export function copyFile(house: House, packet: SentPacket, what: string): CopyFile | null {
	const copy = copiesOf(house.db, packet).find((c) => c.what === what);
	const blob = copy && readBlob(house.db, copy.digest);
	return copy && blob ? { name: copy.name, digest: copy.digest, media: blob.media, bytes: blob.bytes } : null;
}

/** The files that people handed in, each once, with the field they were handed in for. */
export function handedIn(packet: SentPacket): { field: string; paper: string; answer: FileAnswer }[] {
	return questions(packet.plan.fields).flatMap((question) => {
		const field = question.find((f) => packet.answers[f.id] !== undefined);
		const answer = field && packet.answers[field.id];
		return field && answer && isFile(answer) ? [{ field: field.id, paper: field.paper, answer }] : [];
	});
}
