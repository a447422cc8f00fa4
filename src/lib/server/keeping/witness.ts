import { Type, type Static } from '@sinclair/typebox';
import { isConsistent } from '../../core/audit';
import { isAddress } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { Line } from '../../core/schema';
import { border } from '../border';
import type { Db } from '../db';
import type { House } from '../house';
import { sha256Bytes } from '../ids';
import { sendAndEnd } from '../mail/sending';
import type { Message } from '../mail';
import { judgeAddress, sendOutside } from '../outside';
import { rootFile, type SignedRoot } from '../roots';
import { organisation, readSetting, writeSetting } from '../settings';

/**
 * Somebody outside who is sent each day's root, so that not even whoever runs this Pellum can rewrite the past unseen: by mail, another
 * program by its address, or the stand-in that ships with it.
 */

const Witness = Type.Object(
	{
		by: Type.Union([Type.Literal('nobody'), Type.Literal('mail'), Type.Literal('program'), Type.Literal('stand-in')]),
		/** of mail, or https:// */
		address: Line(254)
	},
	{ additionalProperties: false }
);
export type Witness = Static<typeof Witness>;
const witnessBorder = border(Witness);

export function witness({ db, config }: Pick<House, 'db' | 'config'>): Witness {
	const kept = readSetting(db, 'witness');
	if (kept !== undefined) return JSON.parse(kept) as Witness;
	return { by: config.demo ? 'stand-in' : 'nobody', address: '' };
}

export function setWitness(house: House, wanted: unknown): Witness | Refusal {
	const given = witnessBorder(wanted);
	if (isRefusal(given)) return given;
	if (given.by === 'mail' && !isAddress(given.address))
		return refuse('bad-address', `“${given.address}” can't be an e-mail address.`, 'address');
	if (given.by === 'program') {
		const judged = judgeAddress(house, given.address);
		if (isRefusal(judged)) return judged;
	}
	writeSetting(house.db, 'witness', JSON.stringify(given));
	return given;
}

/** The job: sends a day's root to the witness. */
export async function tellWitness(house: House, day: string, done: () => void): Promise<string | null> {
	const { by, address } = witness(house);
	const file = rootFile(house.config.folder, day);
	if (by === 'nobody' || !file) {
		done();
		return null;
	}
	if (by === 'stand-in') {
		witnessed(house.db, day, file.toString('utf8'), house.now().toISOString());
		done();
		return null;
	}
	if (by === 'program') {
		const why = await sendOutside(house, address, file);
		if (why === null) done();
		return why && `The witness could not be told: ${why}`;
	}
	return sendAndEnd(
		house,
		() => letterOf(house, address, day, file),
		(_message, delivery) => {
			if (delivery?.is === 'refused') throw new Error(`The witness could not be told: ${delivery.why}`);
			done();
		}
	);
}

function letterOf(house: House, address: string, day: string, file: Buffer): Message {
	const { name } = organisation(house.db);
	const { size, root } = JSON.parse(file.toString('utf8')) as SignedRoot;
	const text = [
		`The root of ${name} over all that had happened by ${day}: ${size} events.`,
		`SHA-256 ${root}`,
		'Please keep this letter with its file. Whoever doubts a record later can hold it against the root that you have kept.'
	].join('\n\n');
	return {
		id: `witness.${day}`,
		to: address,
		replyTo: { name, address: house.config.mailFrom.replace(/^.*<|>$/g, '') },
		subject: `Root of ${name}, ${day}`,
		text,
		html: `<pre>${text.replaceAll('&', '&amp;').replaceAll('<', '&lt;')}</pre>`,
		attachments: [{ name: `root ${day}.json`, digest: sha256Bytes(file), media: 'application/json', bytes: file }]
	};
}

/** What the stand-in does with a root that it is sent: it looks whether it goes on from the last, by the proof that came with it alone. */
export function witnessed(db: Db, day: string, body: string, at: string): boolean {
	const { size, root, since } = JSON.parse(body) as SignedRoot;
	const last = db
		.prepare<[string], { size: number; root: string }>(
			'SELECT size, root FROM witness_roots WHERE day < ? ORDER BY day DESC LIMIT 1'
		)
		.get(day);
	const follows =
		!last ||
		(last.size === size && last.root === root) ||
		(since?.size === last.size &&
			since.root === last.root &&
			isConsistent(sha256Bytes, last, { size, root }, since.proof));
	db.prepare('INSERT OR IGNORE INTO witness_roots (day, size, root, body, follows, at) VALUES (?, ?, ?, ?, ?, ?)').run(
		day,
		size,
		root,
		body,
		follows ? 1 : 0,
		at
	);
	return follows;
}

/** What the stand-in has been sent, the last first. */
export const witnessRoots = (
	db: Db,
	most = 60
): { day: string; size: number; root: string; follows: 0 | 1; at: string }[] =>
	db
		.prepare<[number], { day: string; size: number; root: string; follows: 0 | 1; at: string }>(
			'SELECT day, size, root, follows, at FROM witness_roots ORDER BY day DESC LIMIT ?'
		)
		.all(most);
