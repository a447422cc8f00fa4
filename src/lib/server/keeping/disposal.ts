import { canonicalJson } from '../../core/audit';
import { isOpen } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { disposalSheetInWorker, type DisposalSheet } from '../../press';
import { notPermitted } from '../access';
import { chainOfPacket } from '../amending/chain';
import type { Account } from '../accounts';
import { keepBlob } from '../blobs';
import { inTransaction, type Db } from '../db';
import { keepingSetting, titleFor } from '../filing';
import type { House } from '../house';
import { queue } from '../jobs/outbox';
import { provesUntil, sealKeys } from '../keys';
import { keepLasting, ofDisposal } from '../lasting';
import { BY_ITSELF, note, numberOf, type Doer } from '../office-record';
import { packetState } from '../packets/act';
import { keptByRules } from '../packets/kept';
import { organisation } from '../settings';
import { erase } from './erasing';
import { holdsOn } from './holds';

/** Disposing of packets: what they held goes for good, their proof stays, and a certificate says what went. */

/** One line of a certificate: nothing in it tells whom it was about. */
type DisposedLine = DisposalSheet['lines'][number];

export interface Disposal {
	number: number;
	at: string;
	by: string;
	second: string;
	why: string;
	lines: DisposedLine[];
	certificate: string | null;
}

export interface Disposing {
	/** ids of those that went */
	gone: string[];
	/** of those that now wait for a second person */
	agreed: string[];
	refused: { id: string; title: string; say: string }[];
	/** under which number; null where nothing went */
	number: number | null;
}

/**
 * Disposes of packets for somebody of the office; where two must agree, the first one's word is kept, and the second's has it go. Each by
 * itself: one that is held back keeps nothing from the others.
 */
export async function dispose(
	house: House,
	doer: Doer & { account: Account },
	ids: readonly string[],
	why: string
): Promise<Disposing | Refusal> {
	if (why.trim() === '') return refuse('reason-missing', 'Say why. It stands on the certificate.', 'why');
	return disposing(house, doer, ids, why.trim());
}

/** What goes by a rule, or from the bin. */
export const disposeByItself = (house: House, ids: readonly string[], why: string): Promise<Disposing> =>
	disposing(house, BY_ITSELF, ids, why);

async function disposing(house: House, doer: Doer, ids: readonly string[], why: string): Promise<Disposing> {
	const { db } = house;
	const came: Disposing = { gone: [], agreed: [], refused: [], number: null };
	const seconds = new Set<string>();
	for (const id of new Set(ids)) {
		const title = titleFor(house, doer.account, id);
		const done = inTransaction(db, () => {
			const no = heldBack(house, doer, id);
			if (no) return no;
			const second = secondOf(house, doer, id, why);
			if (isRefusal(second) || second === 'waits') return second;
			came.number ??= begin(house, doer, why);
			const line = lineOf(db, id);
			db.prepare('INSERT INTO disposed (packet, disposal, events) VALUES (?, ?, ?)').run(id, came.number, line.events);
			erase(house, id);
			db.prepare("UPDATE disposals SET lines = json_insert(lines, '$[#]', json(?)) WHERE number = ?").run(
				canonicalJson(line),
				came.number
			);
			if (second) seconds.add(second);
			return 'gone';
		});
		if (isRefusal(done)) came.refused.push({ id, title, say: done.say });
		else came[done === 'gone' ? 'gone' : 'agreed'].push(id);
		// others are answered between two
		await new Promise((go) => setImmediate(go));
	}
	if (came.number !== null) finish(house, doer, came.number, why, [...seconds].join(', '));
	house.changes.emit('packet', '');
	return came;
}

/** Why this packet can't go now; null where it may. */
function heldBack(house: House, doer: Doer, id: string): Refusal | null {
	const { db } = house;
	const state = packetState(db, id);
	if (state.status === 'none') return refuse('no-packet', 'There is no such packet any more.');
	const no = doer.account ? notPermitted(db, doer.account, 'judge', 'packet', id) : null;
	if (no) return no;
	if (isOpen(state)) return refuse('still-out', 'This is still out, and is not disposed of.');
	const { order } = chainOfPacket(db, id);
	const out = order.find((link) => link.amends === id && (link.status === 'out' || link.status === 'held'));
	if (out) return refuse('amendment-out', `${out.reference} changes it and is still out. It goes when that has ended.`);
	if (state.status === 'completed' && state.evidence === null)
		return refuse('being-sealed', 'Its copies are being sealed just now. Try again when they are there.');
	const [hold] = holdsOn(db, id);
	if (hold)
		return refuse('on-hold', `It is under the legal hold “${hold.name}”. Nothing of it goes until that is lifted.`);
	const part = state.plan.people.find((person) => person.email.toLowerCase() === doer.account?.email.toLowerCase());
	if (part && keepingSetting(db).two)
		return refuse('own-part', 'You took part in it. Where two agree, neither is somebody of the packet.');
	return null;
}

/** Who had agreed before, '' where one is enough; 'waits' where this was the first of two. */
function secondOf(house: House, { account }: Doer, packet: string, why: string): string | Refusal {
	const { db } = house;
	if (!keepingSetting(db).two || !account) return '';
	const wish = db
		.prepare<[string], { account: string; name: string }>(
			'SELECT w.account, a.name FROM disposal_wishes w JOIN accounts a ON a.id = w.account WHERE w.packet = ?'
		)
		.get(packet);
	if (wish && wish.account !== account.id) return wish.name;
	if (wish) return refuse('second-wanted', 'You have agreed already. Somebody else has to agree as well.');
	db.prepare('INSERT INTO disposal_wishes (packet, account, why, at) VALUES (?, ?, ?, ?)').run(
		packet,
		account.id,
		why,
		house.now().toISOString()
	);
	return 'waits';
}

function begin(house: House, doer: Doer, why: string): number {
	const last = house.db.prepare<[], number>('SELECT max(number) FROM disposals').pluck().get() ?? 0;
	house.db
		.prepare("INSERT INTO disposals (number, at, by, second, why, lines) VALUES (?, ?, ?, '', ?, '[]')")
		.run(last + 1, house.now().toISOString(), doer.account?.name ?? 'Pellum, by a rule', why);
	// asked for before anything goes: should the house fall down meanwhile, what went by then has its certificate all the same
	queue(house, 'keeping', `certificate:${last + 1}`, { do: 'certificate', number: last + 1 }, soon(house));
	return last + 1;
}

/** An hour from now: until then it may still be written. */
const soon = (house: House): string => new Date(house.now().getTime() + 3_600_000).toISOString();

function finish(house: House, doer: Doer, number: number, why: string, second: string): void {
	inTransaction(house.db, () => {
		house.db.prepare('UPDATE disposals SET second = ? WHERE number = ?').run(second, number);
		const { lines } = disposalOf(house.db, number)!;
		note(house, doer, { type: 'Disposed', number, packets: lines.length, why, second });
		house.db
			.prepare('UPDATE jobs SET due_at = ? WHERE key = ?')
			.run(house.now().toISOString(), `certificate:${number}`);
	});
	queue(house, 'keeping', `merge:${number}`, { do: 'merge' });
	house.changes.emit('jobs');
}

function lineOf(db: Db, id: string): DisposedLine {
	const state = packetState(db, id);
	if (state.status === 'none' || isOpen(state)) throw new Error('it is out, or not here');
	const row = db
		.prepare<[string], { head: string; put: string | null; kept: string | null; by: string; title: string }>(
			'SELECT head, put, kept_until AS kept, kept_by AS by, template_title AS title FROM packets WHERE id = ?'
		)
		.get(id)!;
	const rule = keptByRules(db, state);
	return {
		reference: state.reference,
		type: state.type,
		template: row.title,
		state: state.status,
		sent: state.sentAt.slice(0, 10),
		ended: state.at.slice(0, 10),
		documents: state.plan.papers.length,
		events: state.events,
		head: row.head,
		by:
			row.kept !== null
				? `kept until ${row.kept}${row.by && rule ? ` by “${rule.rule.name}”` : ''}`
				: row.put === 'bin'
					? 'in the bin for its days'
					: 'as the office decided'
	};
}

/** Newest first. */
export const disposals = (db: Db, most = 200): Disposal[] =>
	db
		.prepare<[number], Omit<Disposal, 'lines'> & { lines: string }>(
			'SELECT number, at, by, second, why, lines, certificate FROM disposals ORDER BY number DESC LIMIT ?'
		)
		.all(most)
		.map((row) => ({ ...row, lines: JSON.parse(row.lines) as DisposedLine[] }));

export function disposalOf(db: Db, number: number): Disposal | null {
	const row = db
		.prepare<[number], Omit<Disposal, 'lines'> & { lines: string }>(
			'SELECT number, at, by, second, why, lines, certificate FROM disposals WHERE number = ?'
		)
		.get(number);
	return row ? { ...row, lines: JSON.parse(row.lines) as DisposedLine[] } : null;
}

/** Makes the certificate and seals it; the same a second time is the same. */
export async function makeCertificate(house: House, number: number, done: () => void): Promise<null> {
	const disposal = disposalOf(house.db, number);
	if (!disposal || disposal.certificate !== null || disposal.lines.length === 0) {
		done();
		return null;
	}
	const office = organisation(house.db).name;
	const keys = await sealKeys(house);
	const sealed = await disposalSheetInWorker({
		sheet: { ...disposal, number: numberOf(number), organisation: office },
		keys,
		organisation: office,
		reason: `Disposed of as ${numberOf(number)}`,
		now: house.now().toISOString()
	});
	inTransaction(house.db, () => {
		keepBlob(house.db, sealed.bytes, 'application/pdf', house.now(), sealed.digest);
		house.db.prepare('UPDATE disposals SET certificate = ? WHERE number = ?').run(sealed.digest, number);
		keepLasting(house, ofDisposal(number), provesUntil(keys.stamp));
		done();
	});
	house.changes.emit('packet', '');
	return null;
}
