import { createHmac, timingSafeEqual } from 'node:crypto';
import { zipSync } from 'fflate';
import type { IdentityLook, LookedAt } from '../../core/identity';
import {
	addressOf,
	NOTHING_SHOWN,
	personIn,
	TAKES_PART,
	takesPart,
	type HowJudged,
	type Recorded,
	type SentPacket
} from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { notPermitted } from '../access';
import type { Account } from '../accounts';
import { harmlessCsv } from '../csv';
import type { House } from '../house';
import { act, judgeOf, office, packetState } from '../packets/act';
import { eventsOf } from '../packets/log';
import { NOBODY, somebodyIn } from '../packets/somebody';
import { keyFor } from '../secrets';
import { identitySetting } from './setting';
import { foundOf, pictureBytes, picturesOf, readTry, triesOf, type Try } from './store';

/** Looking at it: somebody of the office judges who could not show who they are, or of whom a machine can't be sure. */

/** What there is to look at, without the pictures. Refuses `not-permitted` to whoever may not judge in its folder. */
export function identityLook(house: House, account: Account, id: string, person: string): IdentityLook | Refusal {
	const found = judgeable(house, account, id, person);
	if (isRefusal(found)) return found;
	const { packet, who } = found;
	const events = eventsOf(house.db, id);
	const proof = packet.proofs[person] ?? NOTHING_SHOWN;
	const judges = identitySetting(house.db).judges;
	return {
		packet: id,
		title: packet.plan.title,
		reference: packet.reference,
		zone: packet.zone,
		person: { id: person, name: who.name, email: addressOf(packet, person) },
		held: packet.status === 'held' && packet.person === person,
		tries: triesOf(house.db, id, person)
			.filter((one) => one.handedAt !== null)
			.map((one) => lookedAt(house, one, events)),
		answered: events.flatMap((event) =>
			event.type === 'QuestionsAnswered' && event.person === person
				? [{ at: event.at, right: event.right, of: event.of }]
				: []
		),
		agreed: proof.agreed.map(({ name, how }) => ({ name, how })),
		judges,
		mayNot: takesPart(packet, account.email) ? TAKES_PART.say : ''
	};
}

function lookedAt(house: House, one: Try, events: Recorded[]): LookedAt {
	const judged = events.filter((event) => event.type === 'IdentityJudged').find((event) => event.try === one.id);
	return {
		id: one.id,
		kind: one.kind,
		at: one.handedAt!,
		deleted: one.deleted,
		verdict: judged?.verdict ?? null,
		checks: foundOf(house, one.id) ?? (judged?.checks ?? []).map((found) => ({ ...found, measure: '' })),
		pictures: picturesOf(house.db, one.id).map(({ side, digest }) => ({ side, digest }))
	};
}

function judgeable(house: House, account: Account, id: string, person: string) {
	const found = somebodyIn(house, account, 'judge', id, person);
	return isRefusal(found) || found.who.identity ? found : NOBODY;
}

/** How long pictures are shown after they were asked for. */
const SHOWN_MS = 15 * 60_000;

/**
 * Shows the pictures of a try to this account for a while: that is in the record each time. Whoever takes part sees none.
 * @returns a word that the pictures' addresses bear
 */
export function showPictures(house: House, account: Account, id: string, of: string): { pass: string } | Refusal {
	const seen = pictured(house, account, id, of, false);
	if (isRefusal(seen)) return seen;
	const until = house.now().getTime() + SHOWN_MS;
	return { pass: `${until}.${signed(house, account, of, until)}` };
}

function pictured(house: House, account: Account, id: string, of: string, taken: boolean): Try | Refusal {
	const one = readTry(house.db, of);
	if (!one || one.packet !== id) return NOBODY;
	const found = judgeable(house, account, id, one.person);
	if (isRefusal(found)) return found;
	if (takesPart(found.packet, account.email)) return TAKES_PART;
	if (one.deleted) return refuse('pictures-deleted', 'The pictures have been deleted, as they are after their time.');
	const noted = act(house, id, office(account), { do: 'seePictures', person: one.person, try: of, taken });
	return isRefusal(noted) ? noted : one;
}

const signed = (house: House, account: Account, of: string, until: number): string =>
	createHmac('sha256', keyFor(house, 'identity look')).update(`${account.id} ${of} ${until}`).digest('base64url');

/** A picture, for whoever was shown the try a while ago; null for anybody else. */
export function shownPicture(
	house: House,
	account: Account,
	id: string,
	of: string,
	side: string,
	pass: string
): Buffer | null {
	const [until = '', mac = ''] = pass.split('.');
	const wanted = Buffer.from(signed(house, account, of, Number(until)));
	const given = Buffer.from(mac);
	const good = given.length === wanted.length && timingSafeEqual(given, wanted);
	const one = readTry(house.db, of);
	if (!good || Number(until) < house.now().getTime() || one?.packet !== id || one.deleted) return null;
	return pictureBytes(house, of, side);
}

const COLUMNS = ['try', 'at', 'document', 'verdict', 'what', 'outcome', 'measure or SHA-256'];

/** All pictures of a person in a ZIP, with a list of what was found and of the digests: in the record as taken. */
export function picturesZip(
	house: House,
	account: Account,
	id: string,
	person: string
): { name: string; bytes: Uint8Array } | Refusal {
	const look = identityLook(house, account, id, person);
	if (isRefusal(look)) return look;
	const tries = look.tries.filter((one) => !one.deleted);
	if (tries.length === 0) return refuse('pictures-deleted', 'There are no pictures here any more.');
	const files: Record<string, Uint8Array> = {};
	const rows: string[][] = [];
	for (const [i, one] of tries.toReversed().entries()) {
		const noted = pictured(house, account, id, one.id, true);
		if (isRefusal(noted)) return noted;
		const head = [String(i + 1), one.at, one.kind, one.verdict ?? ''];
		for (const { side, digest } of one.pictures) {
			const name = `${i + 1}-${side}.jpg`;
			files[name] = new Uint8Array(pictureBytes(house, one.id, side)!);
			rows.push([...head, name, '', digest]);
		}
		for (const { check, outcome, measure } of one.checks) rows.push([...head, check, outcome, measure]);
	}
	files['checks.csv'] = new TextEncoder().encode(harmlessCsv(COLUMNS, rows));
	return { name: `${look.reference} identity.zip`, bytes: zipSync(files, { level: 0 }) };
}

/** Released, asked again, or refused; two must agree where the office has said so. */
export function judgeHeld(
	house: House,
	account: Account,
	id: string,
	person: string,
	how: HowJudged,
	{ note, word = '' }: { note: string; word?: string }
): SentPacket | Refusal {
	const no = notPermitted(house.db, account, 'judge', 'packet', id);
	if (no) return no;
	const packet = packetState(house.db, id);
	// a wrong code is no matter of pictures: one who speaks to them decides
	const pictures = packet.status !== 'none' && personIn(packet.plan, person)?.identity !== undefined;
	return act(house, id, office(account), {
		do: 'release',
		person,
		how,
		note,
		word,
		judge: judgeOf(account),
		judges: pictures ? identitySetting(house.db).judges : 1
	});
}
