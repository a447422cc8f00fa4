import { cutText, oneLine } from '../../core/clean-text';
import { isFile, questions, type FileAnswer } from '../../core/field';
import type { SentPacket } from '../../core/packet';
import { readBlob } from '../blobs';
import type { House } from '../house';

export interface CopyFile {
	name: string;
	digest: string;
	media: string;
	bytes: Buffer;
}

/** What can be fetched of a sealed packet: its papers by id, what went along unchanged, what people handed in, then the evidence sheet; empty until it is sealed. */
export function copiesOf(packet: SentPacket): { what: string; name: string; digest: string }[] {
	if (packet.evidence === null) return [];
	const name = (text: string) => `${fileName(text)} ${packet.reference}.pdf`;
	return [
		...packet.plan.papers.flatMap((p) =>
			packet.sealed[p.id] ? [{ what: p.id, name: name(p.name), digest: packet.sealed[p.id]! }] : []
		),
		...packet.plan.attachments.map((a) => ({ what: a.id, name: name(a.name), digest: a.digest })),
		...handedIn(packet).map(({ field, answer }) => ({ what: field, name: fileName(answer.name), digest: answer.file })),
		{ what: 'evidence', name: name('Evidence sheet'), digest: packet.evidence }
	];
}

/** Whether the copies are somebody's: not of whoever was left out by a rule, or spared since another one of a group signed. */
export function mayHaveCopies(packet: SentPacket, person: string): boolean {
	return packet.people[person]?.is !== 'skipped';
}

/** A file of a sealed packet: `what` is as in {@link copiesOf}. */
export function copyFile(house: House, packet: SentPacket, what: string): CopyFile | null {
	const copy = copiesOf(packet).find((c) => c.what === what);
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

/** A document's name as a file's, on any system. */
function fileName(name: string): string {
	const safe = oneLine(name)
		.replaceAll(/[\\/:*?"<>|]/g, ' ')
		.replaceAll(/\s+/g, ' ')
		.trim();
	return cutText(safe, 120) || 'Document';
}
