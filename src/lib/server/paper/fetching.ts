import { canonicalJson } from '../../core/audit';
import { isoDay } from '../../core/calendar';
import { isBlank, kindOf, live, prefilled, questionOf, spread, type Answers, type Live } from '../../core/field';
import { shownSize, toShown } from '../../core/page';
import type { Place, SheetOut } from '../../core/paper';
import {
	addressOf,
	isOpen,
	localeOf,
	NO_PAPER,
	noPaper,
	type From,
	type PlanPerson,
	type SentPacket
} from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { paperOutInWorker, type FirstSheet } from '../../press';
import { chosenLanguage, wordsOf, type Words } from '../../words';
import type { Account } from '../accounts';
import { keepBlob, readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId, sha256Text } from '../ids';
import { act, office } from '../packets/act';
import { stampsOf } from '../packets/marks';
import { fitsField } from '../packets/plan-border';
import { somebodyIn } from '../packets/somebody';
import { readSaved } from '../signing/keeping';
import { unproved, type Visitor } from '../signing/visit';
import { paperSetting } from './setting';
import { keepOut, lastOut, type OutKept } from './store';

/** What somebody takes away to sign in ink. */

export interface Fetched {
	name: string;
	bytes: Uint8Array;
}

/** For whoever it is the turn of. Refuses `no-paper` where it is not permitted, and what the packet refuses. */
export async function fetchPaper(
	house: House,
	visitor: Visitor,
	language: string,
	from: From
): Promise<Fetched | Refusal> {
	const no = unproved(visitor);
	if (no) return no;
	const { packet, person } = visitor;
	act(house, packet.packet, { kind: 'person', person: person.id }, { do: 'openPaper', person: person.id, from });
	return fetched(house, packet, person, language, { from });
}

/** For the office, to be printed and posted. */
export async function fetchPaperToPost(
	house: House,
	account: Account,
	id: string,
	who: string
): Promise<Fetched | Refusal> {
	const found = somebodyIn(house, account, 'change', id, who);
	if (isRefusal(found)) return found;
	const { packet, who: person } = found;
	const language = chosenLanguage(person.locale, packet.plan.locale);
	return fetched(house, packet, person, language, { account });
}

async function fetched(
	house: House,
	packet: SentPacket,
	person: PlanPerson,
	language: string,
	by: { from: From } | { account: Account }
): Promise<Fetched | Refusal> {
	if (!paperSetting(house.db).permitted) return NO_PAPER;
	if (!isOpen(packet)) return refuse('not-your-turn', 'It is not your turn. Nothing can be entered here now.');
	const soFar = answersSoFar(house, packet, person);
	const no = noPaper(packet, person) ?? fileFirst(packet, person, soFar.answers, house.now());
	if (no) return no;
	const out = await madeOut(house, packet, person, language, soFar);
	return inTransaction(house.db, () => {
		const made = {
			do: 'fetchPaper',
			person: person.id,
			out: out.id,
			digest: out.digest,
			file: out.file,
			pages: out.sheets.length
		} as const;
		const done =
			'from' in by
				? act(house, packet.packet, { kind: 'person', person: person.id }, { ...made, from: by.from })
				: act(house, packet.packet, office(by.account), made);
		if (isRefusal(done)) return done;
		return { name: `${packet.plan.title} ${packet.reference}.pdf`, bytes: readBlob(house.db, out.file)!.bytes };
	});
}

/** A file can't be handed in on paper. */
function fileFirst(packet: SentPacket, person: PlanPerson, answers: Answers, at: Date): Refusal | null {
	const now = live(packet.plan, answers, isoDay(packet.zone, at.toISOString()));
	const open = packet.plan.fields.find(
		(field) =>
			field.person === person.id &&
			field.kind === 'attachment' &&
			now.required(field) &&
			answers[field.id] === undefined
	);
	return open
		? refuse('file-first', `“${open.label}” asks for a file. Hand it in here first; then fetch the paper.`, undefined, {
				label: open.label
			})
		: null;
}

/** What stands on the pages: what others have answered, and what this person has typed so far. */
interface SoFar {
	answers: Answers;
	typed: Answers;
}

function answersSoFar(house: House, packet: SentPacket, person: PlanPerson): SoFar {
	const { plan } = packet;
	const today = isoDay(packet.zone, house.now().toISOString());
	const known = prefilled(plan, person.id, {
		person: { ...person, email: addressOf(packet, person.id) },
		now: house.now().toISOString(),
		zone: packet.zone,
		locale: localeOf(plan)
	});
	const given = { ...known, ...readSaved(house, packet.packet, person.id)?.answers };
	const own = Object.fromEntries(
		Object.entries(given).filter(([id, answer]) => {
			const field = plan.fields.find((one) => one.id === id);
			return (
				field?.person === person.id &&
				kindOf(field.kind).filledBy === 'person' &&
				// a hand is given in ink, that is what the paper is for
				kindOf(field.kind).drawn(field) !== 'mark' &&
				fitsField(field, answer) &&
				!isBlank(answer)
			);
		})
	);
	const all = { ...packet.answers, ...spread(plan.fields, own) };
	const now = live(plan, all, today);
	const typed = Object.fromEntries(
		Object.entries(own).filter(([id, answer]) => {
			const field = plan.fields.find((one) => one.id === id)!;
			return now.shown(field) && now.check(field, answer) === null;
		})
	);
	return { typed, answers: { ...packet.answers, ...spread(plan.fields, typed) } };
}

/** Made anew only where something else would stand on it. */
async function madeOut(
	house: House,
	packet: SentPacket,
	person: PlanPerson,
	language: string,
	{ answers, typed }: SoFar
): Promise<OutKept> {
	const { plan } = packet;
	const today = isoDay(packet.zone, house.now().toISOString());
	const papers = plan.papers.map(({ id, digest }) => ({ paper: id, digest }));
	const { post } = paperSetting(house.db);
	const madeFrom = sha256Text(canonicalJson({ plan: packet.planDigest, papers, answers, language, post, today }));
	const last = lastOut(house.db, packet.packet, person.id);
	if (last?.madeFrom === madeFrom) return last;
	const now = live(plan, answers, today);
	// what later answers may still change is not printed, since nothing can be taken off paper again
	const fields = plan.fields.filter((field) =>
		answers[field.id] !== undefined ? now.shown(field) : kindOf(field.kind).filledBy === 'nobody' && !field.showWhen
	);
	const bare = plan.papers.flatMap((paper) =>
		paper.pages.map((size, page): Omit<SheetOut, 'words' | 'code'> => ({
			paper: paper.id,
			page,
			...shownSize(size),
			places: placesOn(plan, person.id, paper.id, page, now, answers)
		}))
	);
	const made = await paperOutInWorker({
		papers: plan.papers.map((paper) => ({
			bytes: readBlob(house.db, paper.digest)!.bytes,
			stamps: stampsOf(house.db, { ...plan, fields }, answers, paper.id, today)
		})),
		places: bare.map((sheet) => sheet.places),
		reference: packet.reference,
		person: sha256Text(person.id),
		says: firstSheet(wordsOf(language), packet, bare, post)
	});
	const at = house.now().toISOString();
	const out: OutKept = {
		id: newId(house.now()),
		packet: packet.packet,
		person: person.id,
		madeFrom,
		digest: made.digest,
		file: keepBlob(house.db, made.file, 'application/pdf', house.now()),
		sheets: bare.map((sheet, i) => ({ ...sheet, words: made.pages[i]!.words, code: made.pages[i]!.code })),
		papers,
		typed,
		stamped: fields.map((field) => field.id),
		at
	};
	inTransaction(house.db, () => {
		keepBlob(house.db, made.content, 'application/pdf', house.now(), made.digest);
		keepOut(house.db, out);
	});
	return out;
}

/** Where this person writes on a page. */
function placesOn(
	plan: SentPacket['plan'],
	person: string,
	paper: string,
	page: number,
	now: Live,
	answers: Answers
): Place[] {
	const size = plan.papers.find((one) => one.id === paper)!.pages[page]!;
	return plan.fields.flatMap((field) => {
		const kind = kindOf(field.kind);
		const asked = kind.filledBy === 'person' || kind.filledBy === 'finishing';
		if (field.person !== person || field.paper !== paper || field.page !== page || !asked) return [];
		if (field.readOnly || field.kind === 'attachment' || answers[field.id] !== undefined || !now.shown(field))
			return [];
		const drawn = kind.drawn(field);
		return [
			{
				field: field.id,
				label: field.label || kind.name,
				signed: drawn === 'mark',
				required: now.required(field),
				oneOf: kind.grouped && questionOf(plan.fields, field).length > 1 ? (field.key ?? '') : '',
				...toShown(size, field.rect)
			}
		];
	});
}

function firstSheet(
	words: Words,
	packet: SentPacket,
	sheets: Omit<SheetOut, 'words' | 'code'>[],
	post: string
): FirstSheet {
	return {
		under: words('paper.title'),
		title: packet.plan.title,
		lines: [words('paper.sign'), words('paper.codes'), words('paper.bring')],
		placesTitle: words('paper.places'),
		places: sheets.flatMap(({ places }, i) =>
			places.length === 0
				? []
				: [
						{
							page: words('paper.page', { page: i + 1, pages: sheets.length }),
							what: [...new Set(places.map(({ label }) => label))].join(', ')
						}
					]
		),
		back: post === '' ? null : { title: words('paper.post'), lines: post.split('\n') }
	};
}
