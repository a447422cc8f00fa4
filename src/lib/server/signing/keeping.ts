import { fieldsOf, isFile, type Answers, type FileAnswer } from '../../core/field';
import { stillAt, isOpen, isShut, type From, type PageSeen, type SentPacket } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { sameJson } from '../../core/audit';
import type { House } from '../house';
import { act } from '../packets/act';
import { keepFile, keepPicture } from '../packets/files';
import { unproved, type Visitor } from './visit';

/** The record hears of changed answers at most this often. */
const TOLD_EVERY = 10 * 60_000;

interface Saved {
	answers: Answers;
	savedAt: string;
	told: Answers;
	toldAt: string | null;
}

export function readSaved(house: House, packet: string, person: string): Saved | null {
	const row = house.db
		.prepare<[string, string], { answers: string; saved_at: string; told: string | null; told_at: string | null }>(
			'SELECT answers, saved_at, told, told_at FROM saved_answers WHERE packet = ? AND person = ?'
		)
		.get(packet, person);
	return row
		? {
				answers: JSON.parse(row.answers) as Answers,
				savedAt: row.saved_at,
				told: JSON.parse(row.told ?? '{}') as Answers,
				toldAt: row.told_at
			}
		: null;
}

/** Keeps what somebody has entered, in the place of what was. @returns when, ISO 8601 */
export function writeSaved(house: House, packet: string, person: string, answers: Answers): string {
	const savedAt = house.now().toISOString();
	house.db
		.prepare(
			`INSERT INTO saved_answers (packet, person, answers, saved_at) VALUES (?, ?, ?, ?)
			 ON CONFLICT (packet, person) DO UPDATE SET answers = excluded.answers, saved_at = excluded.saved_at`
		)
		.run(packet, person, JSON.stringify(answers), savedAt);
	return savedAt;
}

/** Whether it was this person's turn before a correction made them wait. */
function waitsAgain(house: House, packet: SentPacket, person: string): boolean {
	return packet.people[person]?.is === 'waiting' && readSaved(house, packet.packet, person) !== null;
}

/** Refuses where nothing can be entered by this person now. */
function notNow(house: House, visitor: Visitor): Refusal | null {
	const no = unproved(visitor);
	if (no) return no;
	const { packet, person } = visitor;
	// what is typed while somebody corrects it, or has put another stop before, is kept all the same
	return isOpen(packet) && (stillAt(packet).includes(person.id) || waitsAgain(house, packet, person.id))
		? null
		: refuse('not-your-turn', 'It is not your turn. Nothing can be entered here now.');
}

/**
 * Keeps what was entered so far. What was entered counts only when the person finishes; the record hears which answers
 * were changed, not what they say.
 * @returns `stale`: the page shows something else by now and should look again
 */
export function saveAnswers(
	house: House,
	visitor: Visitor,
	given: Answers,
	from: From
): { savedAt: string; stale?: true } | Refusal {
	const no = notNow(house, visitor);
	if (no) return no;
	const { packet, person } = visitor;
	const own = new Set(fieldsOf(packet.plan, person.id).map((field) => field.id));
	const answers = Object.fromEntries(Object.entries(given).filter(([id]) => own.has(id)));
	const lost = notHandedIn(house, visitor, answers);
	if (lost) return lost;
	const before = readSaved(house, packet.packet, person.id);
	const savedAt = writeSaved(house, packet.packet, person.id, answers);
	if (!before?.toldAt || Date.parse(savedAt) - Date.parse(before.toldAt) >= TOLD_EVERY)
		tell(house, visitor, before?.told ?? {}, answers, from);
	const stale =
		isShut(packet, savedAt) || packet.toTell[person.id] !== undefined || packet.people[person.id]!.is === 'waiting';
	return { savedAt, ...(stale && { stale }) };
}

function tell(house: House, { packet, person }: Visitor, before: Answers, now: Answers, from: From): void {
	const changed = [...new Set([...Object.keys(before), ...Object.keys(now)])].filter(
		(id) => !sameJson(before[id], now[id])
	);
	if (changed.length === 0 || hasToldMuch(house, packet.packet, person.id)) return;
	act(
		house,
		packet.packet,
		{ kind: 'person', person: person.id },
		{ do: 'keepAnswers', person: person.id, fields: changed, from },
		{
			also: () =>
				house.db
					.prepare('UPDATE saved_answers SET told = ?, told_at = ? WHERE packet = ? AND person = ?')
					.run(JSON.stringify(now), house.now().toISOString(), packet.packet, person.id)
		}
	);
}

/** So many events of what one person looked at and typed are kept of a packet; from then on only what counts. */
const MOST_TOLD = 500;

function hasToldMuch(house: House, packet: string, person: string): boolean {
	const told = house.db
		.prepare<[string, string], number>(
			`SELECT count(*) FROM events WHERE packet = ? AND body ->> '$.by.person' = ?
			 AND body ->> '$.type' IN ('AnswersKept', 'PagesSeen')`
		)
		.pluck()
		.get(packet, person)!;
	return told >= MOST_TOLD;
}

export function forgetSaved(house: House, packet: string, person: string): void {
	house.db.prepare('DELETE FROM saved_answers WHERE packet = ? AND person = ?').run(packet, person);
}

/** How long each page was in view, where the sender wants that kept. */
export function pagesSeen(house: House, { packet, person, proved }: Visitor, pages: PageSeen[], from: From): void {
	if (!proved || packet.plan.sending?.seenPages !== true || hasToldMuch(house, packet.packet, person.id)) return;
	const known = pages.filter((one) => packet.plan.papers.some((p) => p.id === one.paper && one.page < p.pages.length));
	act(
		house,
		packet.packet,
		{ kind: 'person', person: person.id },
		{ do: 'seePages', person: person.id, pages: known, from }
	);
}

/** A picture to sign with: made fit for stamping, kept, and named by its digest. */
export async function addMarkPicture(
	house: House,
	visitor: Visitor,
	bytes: Uint8Array
): Promise<{ digest: string } | Refusal> {
	const no = notNow(house, visitor) ?? tooMany(house, visitor);
	if (no) return no;
	const kept = await keepPicture(house, bytes);
	if (!isRefusal(kept)) noteHandedIn(house, visitor, kept.digest);
	return kept;
}

/** A file handed in for one of this person's fields: judged by its content, kept unchanged. */
export async function addFile(
	house: House,
	visitor: Visitor,
	fieldId: string,
	name: string,
	bytes: Uint8Array
): Promise<FileAnswer | Refusal> {
	const no = notNow(house, visitor) ?? tooMany(house, visitor);
	if (no) return no;
	const { packet, person } = visitor;
	const field = fieldsOf(packet.plan, person.id).find((f) => f.id === fieldId && f.kind === 'attachment');
	if (!field) return refuse('no-file-here', 'This place takes no file of yours.');
	const kept = await keepFile(house, field, name, bytes);
	if (!isRefusal(kept)) noteHandedIn(house, visitor, kept.file);
	return kept;
}

/** So many files and pictures one person can hand in for one packet, used or not. */
const MOST_HANDED_IN = 200;

function tooMany(house: House, { packet, person }: Visitor): Refusal | null {
	const there = house.db
		.prepare<[string, string, number], { digest: string }>(
			'SELECT digest FROM handed_in WHERE packet = ? AND person = ? LIMIT ?'
		)
		.all(packet.packet, person.id, MOST_HANDED_IN);
	return there.length < MOST_HANDED_IN
		? null
		: refuse('too-often', 'Too many files were handed in here. Use one of those, or ask the sender.');
}

function noteHandedIn(house: House, { packet, person }: Visitor, digest: string): void {
	house.db
		.prepare('INSERT OR IGNORE INTO handed_in (packet, person, digest, at) VALUES (?, ?, ?, ?)')
		.run(packet.packet, person.id, digest, house.now().toISOString());
}

/** Refuses an answer that is a file or picture which this person has not handed in for this packet. */
export function notHandedIn(house: House, { packet, person }: Visitor, answers: Answers): Refusal | null {
	const mine = house.db.prepare('SELECT 1 FROM handed_in WHERE packet = ? AND person = ? AND digest = ?');
	for (const [id, answer] of Object.entries(answers)) {
		const digest = isFile(answer) ? answer.file : 'way' in answer && answer.way === 'picture' ? answer.digest : null;
		if (digest === null || mine.get(packet.packet, person.id, digest)) continue;
		return isFile(answer)
			? refuse('file-lost', 'The file is not here any more. Add it again.', id)
			: refuse('picture-lost', 'The picture is not here any more. Add it again.', id);
	}
	return null;
}
