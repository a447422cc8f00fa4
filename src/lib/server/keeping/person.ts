import { canonicalJson } from '../../core/audit';
import { inWords as answerInWords } from '../../core/field';
import { distinctNames, safeName } from '../../core/keeping';
import { isAddress, isOpen, localeOf, planOfRecord, type Recorded, type SentPacket } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { personSheetInWorker, type PersonSheet } from '../../press';
import { inWords } from '../../words/record';
import type { Account } from '../accounts';
import { readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { note, type Doer } from '../office-record';
import { packetState } from '../packets/act';
import { copiesOf, mayHaveCopies } from '../packets/copies';
import { keptByRules, keptOf } from '../packets/kept';
import { eventsOf } from '../packets/log';
import { organisation } from '../settings';
import { streamedZip, type ZipFile } from '../zip';
import { dispose } from './disposal';
import { holdsOn } from './holds';

/** All that is held on one person, by their address: told to them (GDPR Art. 15 and 20), and forgotten (Art. 17). */

/** A packet they take or took part in, and what becomes of it if they are forgotten. */
export interface HeldPacket {
	id: string;
	reference: string;
	title: string;
	state: string;
	/** until when, and by which rule or whose word; '' where nothing says */
	kept: string;
	/** why it has to stay now; null: it may go */
	stays: string | null;
	/** the day from which it may go, ISO 8601; null where nobody knows it yet */
	from: string | null;
}

interface Told extends HeldPacket {
	sender: string;
	parts: { name: string; duty: string; email: string; organisation: string; jobTitle: string; phone: string }[];
	answers: { asked: string; said: string }[];
	happened: { at: string; what: string; from: string }[];
}

function packetIds({ db }: House, email: string): string[] {
	return db
		.prepare<[string], string>(
			'SELECT DISTINCT packet FROM packet_people INDEXED BY people_packets WHERE email = ? COLLATE NOCASE ORDER BY packet'
		)
		.pluck()
		.all(email);
}

/** What is held, and what would stay. Only owners ask for it: it reaches into every folder. Others are answered between a few. */
export async function heldOn(house: House, email: string): Promise<HeldPacket[]> {
	const held: HeldPacket[] = [];
	for (const [n, id] of packetIds(house, email).entries()) {
		if (n % 20 === 19) await new Promise((go) => setImmediate(go));
		const state = packetState(house.db, id);
		if (state.status !== 'none') held.push(heldPacket(house, state));
	}
	return held;
}

function heldPacket(house: House, state: SentPacket): HeldPacket {
	const { keptUntil } = keptOf(house.db, state);
	const rule = keptByRules(house.db, state)?.rule.name;
	const [hold] = holdsOn(house.db, state.packet);
	const today = house.now().toISOString().slice(0, 10);
	const by = state.keep ? `by ${state.keep.by}: ${state.keep.why}` : rule ? `by “${rule}”` : '';
	const stays = isOpen(state)
		? 'It is still out.'
		: hold
			? `It is under the legal hold “${hold.name}”.`
			: keptUntil !== null && keptUntil >= today
				? `It has to be kept until ${keptUntil}, ${by}.`
				: null;
	return {
		id: state.packet,
		reference: state.reference,
		title: state.plan.title,
		state: state.status,
		kept: keptUntil === null ? '' : `until ${keptUntil}, ${by}`,
		stays,
		from: stays === null || isOpen(state) || hold ? null : keptUntil
	};
}

/** As a ZIP that a person can read: a PDF, the same as JSON, and their copies. That it was fetched is in the office's record. */
export async function personAsZip(
	house: House,
	doer: Doer & { account: Account },
	email: string
): Promise<{ name: string; stream: ReadableStream<Uint8Array> } | Refusal> {
	const no = ownersOnly(doer, email);
	if (no) return no;
	const told: Told[] = [];
	const copies: (() => ZipFile[])[] = [];
	const named = distinctNames();
	for (const id of packetIds(house, email)) {
		await new Promise((go) => setImmediate(go));
		const state = packetState(house.db, id);
		if (state.status === 'none') continue;
		const theirs = partsOf(state, email);
		told.push(toldOf(house, state, theirs));
		if (theirs.some((person) => mayHaveCopies(state, person)))
			copies.push(() => copiesIn(house, id, named(safeName(`${state.plan.title} ${state.reference}`))));
	}
	const facts = {
		format: 'pellum-person/1',
		address: email,
		at: house.now().toISOString(),
		organisation: organisation(house.db).name,
		packets: told.map(({ id: _id, ...packet }) => packet),
		besides: besides(house, email)
	};
	const sheet: PersonSheet = {
		address: email,
		organisation: facts.organisation,
		at: facts.at,
		packets: told,
		besides: facts.besides.map(({ where, what }) => [where, what])
	};
	const written = await personSheetInWorker(sheet);
	note(house, doer, { type: 'PersonTold', packets: told.length });
	const first = (): ZipFile[] => [
		{ name: 'What is held.pdf', bytes: written },
		{ name: 'data.json', bytes: new Uint8Array(Buffer.from(canonicalJson(facts))) }
	];
	return { name: `${safeName(email)}.zip`, stream: streamedZip([first, ...copies]) };
}

/** Read when their turn has come; what went meanwhile has none. */
function copiesIn(house: House, packet: string, folder: string): ZipFile[] {
	const state = packetState(house.db, packet);
	return state.status === 'none'
		? []
		: copiesOf(house.db, state).map(({ name, digest }) => ({
				name: `${folder}/${name}`,
				bytes: new Uint8Array(readBlob(house.db, digest)!.bytes)
			}));
}

function ownersOnly({ account }: { account: Account }, email: string): Refusal | null {
	if (account.level !== 'owner')
		return refuse('not-yours', 'An owner of the office does this, since it reaches into every folder.');
	return isAddress(email) ? null : refuse('bad-address', `“${email}” can't be an e-mail address.`, 'address');
}

/** Their places in it, by id: also where their address was put right, or somebody else has taken over. */
function partsOf(state: SentPacket, email: string): string[] {
	const same = (one: string | undefined) => one?.toLowerCase() === email.toLowerCase();
	return planOfRecord(state)
		.people.filter(
			(person) =>
				same(person.email) ||
				same(state.addresses[person.id]) ||
				state.handOvers.some((one) => one.person === person.id && (same(one.from.email) || same(one.to.email)))
		)
		.map(({ id }) => id);
}

function toldOf(house: House, state: SentPacket, theirs: string[]): Told {
	const plan = planOfRecord(state);
	const mine = (id: unknown) => typeof id === 'string' && theirs.includes(id);
	return {
		...heldPacket(house, state),
		sender: `${state.sender.name}, ${state.sender.organisation}`,
		parts: plan.people
			.filter(({ id }) => mine(id))
			.map(({ name, duty, email, organisation: at = '', jobTitle = '', phone = '' }) => ({
				name,
				duty,
				email,
				organisation: at,
				jobTitle,
				phone
			})),
		answers: state.plan.fields.flatMap((field) => {
			const answer = mine(field.person) ? state.answers[field.id] : undefined;
			return answer
				? [{ asked: field.label || field.key, said: answerInWords(state.plan, field, answer, localeOf(state.plan)) }]
				: [];
		}),
		happened: eventsOf(house.db, state.packet).flatMap((event: Recorded) => {
			if (!('person' in event) || !mine(event.person)) return [];
			const from = 'from' in event && event.from ? `${event.from.address}, ${event.from.device}` : '';
			return [{ at: event.at, what: inWords(event, plan, true), from }];
		})
	};
}

/** What is held on them beside packets. */
function besides({ db }: House, email: string): { where: string; what: string }[] {
	const told: { where: string; what: string }[] = [];
	for (const { where, sql } of [
		{
			where: 'Known to have shown who they are',
			sql: "SELECT way || ', ' || at || ', as ' || name FROM identities_known WHERE email = ? COLLATE NOCASE"
		},
		{
			where: 'Begun through an intake, not handed in',
			sql: "SELECT 'begun ' || begun_at || ', ' || visitor FROM cases INDEXED BY cases_by_email WHERE email = ? COLLATE NOCASE AND packet IS NULL"
		},
		{
			where: 'Account of the office',
			sql: "SELECT level || ', since ' || created_at FROM accounts WHERE email = ?"
		},
		{
			where: 'In the Mailbox of the demo',
			sql: "SELECT at || ': ' || subject FROM mailbox WHERE recipient = ? LIMIT 500"
		}
	])
		told.push(
			...db
				.prepare<[string], string>(sql)
				.pluck()
				.all(email)
				.map((what) => ({ where, what }))
		);
	return told;
}

export interface Forgotten {
	/** what has gone */
	gone: { reference: string; title: string }[];
	/** what waits for a second person's word */
	agreed: { reference: string; title: string }[];
	/** what must stay, why, and from when it may go */
	stay: { reference: string; title: string; why: string; from: string | null }[];
	/** the certificate's number; null where nothing went */
	number: number | null;
}

/** Forgets somebody: what may go goes, what must stay is named with its reason and its day. */
export async function forgetPerson(
	house: House,
	doer: Doer & { account: Account },
	email: string,
	why: string
): Promise<Forgotten | Refusal> {
	const no = ownersOnly(doer, email);
	if (no) return no;
	const held = await heldOn(house, email);
	const may = held.filter((packet) => packet.stays === null);
	const came = await dispose(
		house,
		doer,
		may.map(({ id }) => id),
		why
	);
	if (isRefusal(came)) return came;
	const named = (ids: string[]) =>
		held.filter(({ id }) => ids.includes(id)).map(({ reference, title }) => ({ reference, title }));
	const stay = [
		...held.flatMap(({ reference, title, stays, from }) => (stays ? [{ reference, title, why: stays, from }] : [])),
		...came.refused.map(({ id, title, say }) => ({
			reference: held.find((packet) => packet.id === id)?.reference ?? '',
			title,
			why: say,
			from: null
		}))
	];
	inTransaction(house.db, () => {
		forgetBesides(house, email, stay.length > 0);
		note(house, doer, { type: 'PersonForgotten', gone: came.gone.length, stay: stay.length });
	});
	return { gone: named(came.gone), agreed: named(came.agreed), stay, number: came.number };
}

/** What is held beside packets. Letters stay where a packet does that they belong to. */
function forgetBesides({ db }: House, email: string, stays: boolean): void {
	for (const sql of [
		'DELETE FROM identities_known WHERE email = ? COLLATE NOCASE',
		'DELETE FROM cases WHERE id IN (SELECT id FROM cases INDEXED BY cases_by_email WHERE email = ? COLLATE NOCASE AND packet IS NULL)',
		'DELETE FROM intake_people WHERE email = ? COLLATE NOCASE'
	])
		db.prepare(sql).run(email);
	if (!stays) db.prepare('DELETE FROM mailbox WHERE recipient = ?').run(email);
}
