import { amendmentInWords } from '../../core/amend';
import { isoDay, momentIn } from '../../core/calendar';
import { addressOf, planOfRecord, type PlanPerson, type Recorded, type SentPacket } from '../../core/packet';
import { acts, doneWord, notaryIn } from '../../core/route';
import { sealEvidenceInWorker, sealPaperInWorker, unseenInWorker, type Evidence, type Mark } from '../../press';
import { inWords } from '../../words/record';
import { howShown } from '../../words/shown';
import { keepBlob, readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { provesUntil, sealKeys } from '../keys';
import { keepLasting } from '../lasting';
import { standInNotaries } from '../notary';
import { readOut } from '../paper/store';
import { act, packetState } from '../packets/act';
import { handedIn } from '../packets/copies';
import { auditRecord, eventsOf, linksOf, treeHead } from '../packets/log';
import { handMark, stampsOf } from '../packets/marks';

/** Seals every document of a completed packet and its evidence sheet, and records their digests. */
export async function sealPacket(house: House, id: string, done: () => void): Promise<null> {
	const { db } = house;
	const packet = packetState(db, id);
	if (packet.status !== 'completed' || packet.evidence !== null) {
		done();
		return null;
	}
	const record = JSON.stringify(auditRecord(db, id));
	const shared = {
		keys: await sealKeys(house),
		organisation: packet.sender.organisation,
		reason: `Completed as ${packet.reference}`,
		record,
		now: house.now().toISOString()
	};
	const notary = await notarySigns(house, packet);
	const files = handedIn(packet);
	const papers: Record<string, Awaited<ReturnType<typeof sealPaperInWorker>>> = {};
	for (const paper of packet.plan.papers) {
		const bytes = readBlob(db, paper.digest)!.bytes;
		const stamps = stampsOf(db, packet.plan, packet.answers, paper.id, isoDay(packet.zone, packet.at));
		const sealed = await sealPaperInWorker({
			...shared,
			...(notary && { notary }),
			paper: bytes,
			stamps,
			files: [
				...files
					.filter((one) => one.paper === paper.id)
					.map(({ answer }) => ({ name: answer.name, media: answer.media, bytes: readBlob(db, answer.file)!.bytes })),
				...asWentOut(house, packet, paper.id)
			]
		});
		const unseen = await unseenInWorker({ paper: bytes, sealed: sealed.bytes, stamps });
		if (unseen.length > 0) throw new Error(unseenSay(packet.reference, paper.name, unseen));
		papers[paper.id] = sealed;
	}
	const digests = Object.fromEntries(Object.entries(papers).map(([paper, sealed]) => [paper, sealed.digest]));
	const evidence = await sealEvidenceInWorker({ ...shared, evidence: evidenceOf(house, packet, digests) });
	inTransaction(db, () => {
		for (const sealed of [...Object.values(papers), evidence])
			keepBlob(db, sealed.bytes, 'application/pdf', house.now(), sealed.digest);
		act(house, id, { kind: 'pellum' }, { do: 'recordSealed', papers: digests, evidence: evidence.digest });
		keepLasting(house, id, provesUntil(shared.keys.stamp));
		done();
	});
	return null;
}

/** Whoever notarised it, with a key of their own; null where nobody did. */
async function notarySigns(house: House, { plan }: SentPacket) {
	const asked = notaryIn(plan)?.notary;
	if (!asked) return null;
	const service = standInNotaries(house);
	const notary = service.find(asked.commission);
	const identity = await service.identity(asked.commission);
	if (!notary || !identity) throw new Error('the notary who signed is nowhere any more');
	return { identity, name: notary.name, reason: `${asked.act}, commission ${notary.number}` };
}

/** The pages as they went out to whoever signed in ink, beside the scanned ones that stand in the document. */
function asWentOut(house: House, packet: SentPacket, paper: string) {
	return Object.entries(packet.inks).flatMap(([person, ink]) => {
		const out = ink.is === 'accepted' ? readOut(house.db, ink.out) : null;
		if (!out || out.papers[0]?.paper !== paper) return [];
		const name = packet.plan.people.find((one) => one.id === person)?.name ?? 'somebody';
		return [
			{
				name: `As it went out to ${name}.pdf`,
				media: 'application/pdf',
				bytes: readBlob(house.db, out.digest)!.bytes
			}
		];
	});
}

/** A genuine copy on which an answer can't be seen would be worse than none. */
function unseenSay(reference: string, paper: string, unseen: { page: number }[]): string {
	const pages = [...new Set(unseen.map((stamp) => stamp.page + 1))].join(', ');
	return `${reference}: ${unseen.length} of the answers can’t be seen on “${paper}” (page ${pages}), so no sealed copy was made. The answers are kept; look at the document.`;
}

function evidenceOf(
	house: House,
	packet: SentPacket & { status: 'completed' },
	sealed: Record<string, string>
): Evidence {
	const moment = (at: string) => momentIn(packet.zone, at);
	const events = eventsOf(house.db, packet.packet);
	const finished = new Map(events.flatMap((e) => (e.type === 'PersonFinished' ? [[e.person, e] as const] : [])));
	const links = linksOf(house.db, packet.packet);
	const { size, root } = treeHead(house.db);
	return {
		title: packet.plan.title,
		reference: packet.reference,
		organisation: packet.sender.organisation,
		facts: [
			['Sent by', `${packet.sender.name}, ${packet.sender.email}`],
			['Sent', moment(packet.sentAt)],
			['Completed', moment(packet.at)],
			['Times', packet.zone],
			...(packet.plan.amends
				? [
						['Amends', `${packet.plan.amends.reference}, “${packet.plan.amends.title}”`] as [string, string],
						...amendmentInWords({ papers: packet.plan.papers, amends: packet.plan.amends }).map(
							(say, i): [string, string] => [`Change ${i + 1}`, say]
						)
					]
				: [])
		],
		people: packet.plan.people.map((person) => {
			const end = finished.get(person.id);
			return {
				name: person.name,
				address: addressOf(packet, person.id),
				did: end?.ink ? 'signed on paper, in ink; the scanned pages stand in the document' : didWhat(packet, person),
				when: end ? moment(end.at) : '',
				from: end ? `from ${end.from.address}, ${end.from.device}` : '',
				known: howShown(events, person.id),
				mark: end ? signatureOf(house, packet, person.id) : null,
				shown: end?.shown ?? ''
			};
		}),
		papers: packet.plan.papers.map((paper) => ({
			name: paper.name,
			pages: paper.pages.length,
			digest: paper.digest,
			sealed: sealed[paper.id]!
		})),
		attachments: [
			...packet.plan.attachments,
			...handedIn(packet).map(({ answer }) => ({ name: answer.name, digest: answer.file }))
		],
		events: events.map((event) => ({
			when: moment(event.at),
			what: inWords(event, planOfRecord(packet)),
			from: fromOf(event)
		})),
		head: links[links.length - 1]!.hash,
		root,
		size
	};
}

/** What came of a person's part. */
function didWhat(packet: SentPacket, { id, duty }: PlanPerson): string {
	const standing = packet.people[id]!;
	if (standing.is === 'skipped') return standing.why === 'rule' ? 'left out by a rule' : 'spared: another one did it';
	if (standing.is === 'declined')
		return standing.reason === ''
			? 'not taken for who they should be; another one of the group did it'
			: 'declined; another one of the group did it';
	return acts(duty) ? doneWord(duty) : 'gets a copy';
}

function signatureOf(house: House, { plan, answers }: SentPacket, person: string): Mark | null {
	const given = plan.fields.find((f) => f.person === person && f.kind === 'signature' && answers[f.id]);
	const answer = given && answers[given.id]!;
	return answer && 'way' in answer ? handMark(house.db, answer) : null;
}

function fromOf(event: Recorded): string {
	return 'from' in event ? (event.from?.address ?? '') : '';
}
