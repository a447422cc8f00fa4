import type { Answer, Answers } from '../../core/field';
import { isBlank, kindOf } from '../../core/field';
import type { ReturnLook } from '../../core/paper';
import {
	addressOf,
	localeOf,
	neededByRules,
	isOpen,
	TAKES_PART,
	takesPart,
	type From,
	type PlanPerson,
	type SentPacket
} from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { pageInWorker } from '../../press';
import { notPermitted } from '../access';
import type { Account } from '../accounts';
import { readBlob } from '../blobs';
import type { House } from '../house';
import { act, judgeOf, office } from '../packets/act';
import { NOBODY, somebodyIn } from '../packets/somebody';
import { takeForDocument } from './accepting';
import { brought } from './bringing-view';
import { judged } from './judged';
import { markOld, picturesOf, pictureBytes, readOut, type OutKept } from './store';

/** Looking at what came back: what went out beside what is there now, the doubts, and what the office makes of it. */

interface Found {
	packet: SentPacket;
	who: PlanPerson;
	out: OutKept | null;
}

function found(house: House, account: Account, doing: 'judge' | 'see', id: string, person: string): Found | Refusal {
	const there = somebodyIn(house, account, doing, id, person);
	if (isRefusal(there)) return there;
	const ink = there.packet.inks[person];
	if (there.who.ink !== true && !ink) return NOBODY;
	return { ...there, out: ink ? readOut(house.db, ink.out) : null };
}

/** All there is to see of somebody's paper, without its pictures. */
export function returnLook(house: House, account: Account, id: string, person: string): ReturnLook | Refusal {
	const there = found(house, account, 'see', id, person);
	if (isRefusal(there)) return there;
	const { packet, who, out } = there;
	const ink = packet.inks[person];
	const pictures = out ? picturesOf(house.db, out.id) : [];
	const judgement = out ? judged(out, pictures) : { doubts: [], pages: [], twice: [] };
	const handed = pictures.some((one) => one.seen !== null);
	const mayJudge = notPermitted(house.db, account, 'judge', 'packet', id);
	return {
		packet: id,
		title: packet.plan.title,
		reference: packet.reference,
		zone: packet.zone,
		person: { id: person, name: who.name, email: addressOf(packet, person) },
		is: ink?.is ?? null,
		since: ink?.since ?? '',
		done: pictures.filter((one) => one.seen !== null).length,
		pages: (out?.sheets ?? []).map(({ width, height, places }, number) => {
			const picture = judgement.pages[number] ?? null;
			const seen = pictures.find((one) => one.id === picture)?.seen ?? null;
			return {
				number,
				width,
				height,
				picture,
				by: seen?.by ?? null,
				share: seen === null || seen.share === null ? null : Math.round(100 * seen.share),
				dots: seen?.dots ?? 0,
				places: places.map(({ field, label, left, top, width: wide, height: high }) => ({
					field,
					label,
					left,
					top,
					width: wide,
					height: high,
					ink: seen?.found?.places.some((one) => one.field === field && one.ink) ?? false
				})),
				doubts: handed ? judgement.doubts.filter((doubt) => doubt.page === number) : []
			};
		}),
		foreign: judgement.doubts.filter((doubt) => doubt.page === null),
		twice: judgement.twice,
		pictures: out ? brought(out, pictures) : [],
		toConfirm: out && handed ? toConfirm(house, packet, out) : [],
		mayNot: (takesPart(packet, account.email) ? TAKES_PART : mayJudge)?.say ?? '',
		word: ink?.word ?? ''
	};
}

/** Places with writing that could be data, were it read. */
function toConfirm(house: House, packet: SentPacket, out: OutKept): ReturnLook['toConfirm'] {
	if (!isOpen(packet)) return [];
	const needed = new Set(neededByRules(packet, out.person, house.now().toISOString()).map((field) => field.id));
	return out.sheets.flatMap(({ places }, page) =>
		places.flatMap((place) => {
			const field = packet.plan.fields.find((one) => one.id === place.field);
			if (!field || place.signed || kindOf(field.kind).filledBy !== 'person' || kindOf(field.kind).grouped) return [];
			const options = field.settings['options'];
			return [
				{
					field: field.id,
					label: place.label,
					page,
					options: Array.isArray(options) ? options.map((one): [string, string] => [one.value, one.text]) : [],
					needed: needed.has(field.id)
				}
			];
		})
	);
}

/** A page as it went out, or as it came back, as a picture; null where there is none. */
export async function returnPicture(
	house: House,
	account: Account,
	id: string,
	person: string,
	which: string
): Promise<{ bytes: Uint8Array; media: string } | null> {
	const there = found(house, account, 'see', id, person);
	if (isRefusal(there) || !there.out) return null;
	const { out } = there;
	const number = /^out-(\d{1,4})$/.exec(which)?.[1];
	if (number !== undefined) {
		const sheet = out.sheets[Number(number)];
		if (!sheet) return null;
		const bytes = new Uint8Array(readBlob(house.db, out.digest)!.bytes);
		const width = Math.round((sheet.width * 150) / 72);
		return { bytes: await pageInWorker({ bytes, page: Number(number), width }), media: 'image/png' };
	}
	const laid = pictureBytes(house.db, out.id, which, 'laid') ?? pictureBytes(house.db, out.id, which, 'bytes');
	return laid ? { bytes: laid, media: 'image/jpeg' } : null;
}

function judgeable(house: House, account: Account, id: string, person: string): (Found & { out: OutKept }) | Refusal {
	const there = found(house, account, 'judge', id, person);
	if (isRefusal(there)) return there;
	const { out } = there;
	return out ? { ...there, out } : refuse('nothing-out', 'Nothing of theirs is out on paper.');
}

/** Takes it for the document. `read`: what somebody has read in fields, as typed; none is taken that was not confirmed. */
export async function acceptReturn(
	house: House,
	account: Account,
	id: string,
	person: string,
	{ read, note, from }: { read: Record<string, string>; note: string; from: From }
): Promise<SentPacket | Refusal> {
	const there = judgeable(house, account, id, person);
	if (isRefusal(there)) return there;
	const { packet, out } = there;
	const confirmed = answersRead(packet, person, read);
	if (isRefusal(confirmed)) return confirmed;
	return takeForDocument(house, out, { account, confirmed, note, from });
}

/** What was typed by whoever read it, as answers by their kinds. */
function answersRead(packet: SentPacket, person: string, read: Record<string, string>): Answers | Refusal {
	const answers: Record<string, Answer> = {};
	for (const [id, typed] of Object.entries(read)) {
		const field = packet.plan.fields.find((one) => one.id === id && one.person === person);
		if (!field || typed.trim() === '') continue;
		const answer = kindOf(field.kind).read(field, typed.trim(), localeOf(packet.plan));
		if (isRefusal(answer)) return { ...answer, say: `“${field.label}”: ${answer.say}`, at: id };
		if (!isBlank(answer)) answers[id] = answer;
	}
	return answers;
}

/** Pages are wanted again, with the reasons and a word. */
export function askReturn(
	house: House,
	account: Account,
	id: string,
	person: string,
	pages: number[],
	word: string
): SentPacket | Refusal {
	const there = judgeable(house, account, id, person);
	if (isRefusal(there)) return there;
	const { out } = there;
	const wanted = [...new Set(pages)].filter((page) => page >= 0 && page < out.sheets.length);
	const asked = { do: 'askReturn', person, out: out.id, pages: wanted, word } as const;
	return act(
		house,
		id,
		office(account),
		{ ...asked, judge: judgeOf(account) },
		{ also: () => markOld(house.db, out.id, wanted) }
	);
}

export function refuseReturn(
	house: House,
	account: Account,
	id: string,
	person: string,
	word: string
): SentPacket | Refusal {
	const there = judgeable(house, account, id, person);
	if (isRefusal(there)) return there;
	return act(house, id, office(account), {
		do: 'refuseReturn',
		person,
		out: there.out.id,
		word,
		judge: judgeOf(account)
	});
}
