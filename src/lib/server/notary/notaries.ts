import { randomBytes } from 'node:crypto';
import sharp from 'sharp';
import { commissionFault, CommissionSchema, type Commission, type CommissionGiven } from '../../core/notary';
import { isAddress, type Plan } from '../../core/packet';
import { isZone } from '../../core/calendar';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { notaryIn } from '../../core/route';
import { markPictureInWorker, type Identity } from '../../press';
import { keepBlob } from '../blobs';
import { border } from '../border';
import type { Db } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { notaryIdentity } from '../keys';
import { note, type Doer } from '../office-record';

/**
 * Notaries: outside people with a commission, a seal and a certificate of their own. These are a stand-in that ships with Pellum,
 * which keeps their keys and can play them; a real service would be asked for the same.
 */
export interface NotaryService {
	/** whoever may be chosen now, and those that were taken out, for what they are part of already */
	find(commission: string): Notary | null;
	/** what signs as this notary */
	identity(commission: string): Promise<Identity | null>;
}

export interface Notary extends Commission {
	/** SHA-256 of the picture of their seal; null where there is none */
	seal: string | null;
	/** the stand-in plays them by itself */
	plays: boolean;
	ended: boolean;
}

interface Row {
	id: string;
	commission: string;
	seal: string | null;
	plays: number;
	ended_at: string | null;
}

const asNotary = ({ id, commission, seal, plays, ended_at }: Row): Notary => ({
	...(JSON.parse(commission) as CommissionGiven),
	id,
	seal,
	plays: plays === 1,
	ended: ended_at !== null
});

export function standInNotaries(house: House): NotaryService {
	return {
		find: (commission) => notaryById(house.db, commission),
		identity: async (commission) => {
			const notary = notaryById(house.db, commission);
			return notary && notaryIdentity(house, notary.id, notary.name);
		}
	};
}

export function notaryById(db: Db, id: string): Notary | null {
	const row = db
		.prepare<[string], Row>('SELECT id, commission, seal, plays, ended_at FROM notaries WHERE id = ?')
		.get(id);
	return row ? asNotary(row) : null;
}

/** More notaries than this are no stand-in's. */
export const MOST = 50;

/** All that there are, by name. */
export function notaries(db: Db): Notary[] {
	return db
		.prepare<[number], Row>('SELECT id, commission, seal, plays, ended_at FROM notaries ORDER BY id LIMIT ?')
		.all(MOST)
		.map(asNotary)
		.sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** Those who can be chosen for something new. */
export const notariesToChoose = (db: Db): Notary[] => notaries(db).filter((one) => !one.ended);

const commissionBorder = border(CommissionSchema);

/** A new notary, or another commission of one that is there. Refuses what can't be a commission. */
export function keepNotary(house: House, by: Doer, given: unknown, id: string | null): { id: string } | Refusal {
	const { db } = house;
	const wanted = commissionBorder(given);
	if (isRefusal(wanted)) return wanted;
	if (!isAddress(wanted.email)) return refuse('bad-address', `“${wanted.email}” can't be an e-mail address.`, 'email');
	if (!isZone(wanted.zone)) return refuse('bad-zone', 'There is no such time zone.', 'zone');
	if (wanted.until < wanted.from) return refuse('ends-before', 'The commission ends before it begins.', 'until');
	if (wanted.hours.to <= wanted.hours.from) return refuse('no-hours', 'The hours end before they begin.', 'to');
	const before = id === null ? null : notaryById(db, id);
	if (id !== null && !before) return refuse('no-notary', 'There is no such notary.');
	if (id === null && notaries(db).length >= MOST) return refuse('too-many', `There are ${MOST} notaries already.`);
	const kept = id ?? newId(house.now());
	db.prepare(
		`INSERT INTO notaries (id, commission, plays) VALUES (?, ?, 0)
		 ON CONFLICT (id) DO UPDATE SET commission = excluded.commission`
	).run(kept, JSON.stringify(wanted));
	note(house, by, {
		type: 'SettingsChanged',
		what: 'notary',
		from: before ? { name: before.name, number: before.number } : {},
		to: { name: wanted.name, number: wanted.number }
	});
	return { id: kept };
}

/** Chosen for nothing new from now on, or chosen again. */
export function endNotary(house: House, by: Doer, id: string, ended: boolean): void {
	const notary = notaryById(house.db, id);
	if (!notary || notary.ended === ended) return;
	house.db.prepare('UPDATE notaries SET ended_at = ? WHERE id = ?').run(ended ? house.now().toISOString() : null, id);
	note(house, by, {
		type: 'SettingsChanged',
		what: 'notary',
		from: { name: notary.name, chosen: !notary.ended },
		to: { name: notary.name, chosen: !ended }
	});
}

/** Whether the stand-in plays this notary by itself, or somebody sits at the desk. */
export function letPlay(house: House, id: string, plays: boolean): void {
	house.db.prepare('UPDATE notaries SET plays = ? WHERE id = ?').run(plays ? 1 : 0, id);
}

/** The picture of the seal. Refuses `not-a-picture`. */
export async function setSeal(house: House, id: string, bytes: Uint8Array): Promise<Refusal | null> {
	const made = await markPictureInWorker(bytes);
	if (isRefusal(made)) return made;
	keepSeal(house, id, made.bytes);
	return null;
}

function keepSeal(house: House, id: string, png: Uint8Array): void {
	const digest = keepBlob(house.db, png, 'image/png', house.now());
	house.db.prepare('UPDATE notaries SET seal = ? WHERE id = ?').run(digest, id);
}

/** A seal of rings and rays, where a notary has brought none. No two are alike. */
export async function drawSeal(house: House, id: string): Promise<void> {
	const [turn, count] = [randomBytes(1)[0]! / 255, 9 + (randomBytes(1)[0]! % 8)];
	const rays = Array.from({ length: count * 2 }, (_, i) => {
		const angle = (i / (count * 2)) * 2 * Math.PI + turn;
		const far = i % 2 === 0 ? 92 : 58;
		return `${(150 + far * Math.cos(angle)).toFixed(1)},${(150 + far * Math.sin(angle)).toFixed(1)}`;
	}).join(' ');
	const ring = (radius: number, width: number, dash = '') =>
		`<circle cx="150" cy="150" r="${radius}" fill="none" stroke="#14525c" stroke-width="${width}"${dash && ` stroke-dasharray="${dash}"`}/>`;
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="300">${ring(142, 5)}${ring(128, 2)}${ring(112, 9, '3 7')}<polygon points="${rays}" fill="none" stroke="#14525c" stroke-width="3"/>${ring(34, 4)}${ring(22, 2)}</svg>`;
	keepSeal(house, id, new Uint8Array(await sharp(Buffer.from(svg)).png().toBuffer()));
}

/** The notary whom a plan names, as they are now; null where it names none, or one that is nowhere. */
export function notaryOfPlan(db: Db, plan: Plan): Notary | null {
	const asked = notaryIn(plan)?.notary;
	return asked ? notaryById(db, asked.commission) : null;
}

/** Why a plan can't be sent with the notary it names; null where it can, or names none. */
export function commissionFaultOf(house: House, plan: Plan): Refusal | null {
	const person = notaryIn(plan);
	if (!person) return null;
	const notary = notaryOfPlan(house.db, plan);
	if (!notary || notary.ended)
		return refuse('notary-gone', 'This notary can’t be chosen any more. Choose another one.', person.id);
	if (person.email.trim().toLowerCase() !== notary.email.toLowerCase() || person.name.trim() !== notary.name)
		return refuse(
			'not-the-notary',
			`Name and address are not those of ${notary.name}. Choose the notary again, which sets them.`,
			person.id
		);
	const no = commissionFault(notary, house.now().toISOString());
	return no && refuse(no.code, no.say, person.id);
}
