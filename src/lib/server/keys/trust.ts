import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { toPem, type Known } from '../../press';
import type { Db } from '../db';
import type { House } from '../house';
import { betweenOf } from './between';
import { methods } from './methods';

/** What somebody must know to judge Pellum's copies: whom to trust, what was withdrawn, and which methods are not relied on any more. */

const calledOf = (name: string): string => name.replace(/^seal/, 'organisation').replace(/^stamp/, 'time-stamp');

/** The roots of all keys that there are; of earlier ones with the day from which they were not used any more. */
export function rootsOf(db: Db): { name: string; pem: string }[] {
	return db
		.prepare<[], { name: string; issuer: Buffer }>('SELECT name, issuer FROM keys ORDER BY name')
		.all()
		.map(({ name, issuer }) => ({ name: `${calledOf(name)}-root.pem`, pem: toPem(issuer) }));
}

/** Revocation lists of all of them as they are today, DER. */
function listsIn(db: Db): { name: string; list: Uint8Array }[] {
	return db
		.prepare<[], { name: string; crl: Buffer; others: string }>(
			'SELECT name, crl, between_them AS others FROM keys ORDER BY name'
		)
		.all()
		.flatMap(({ name, crl, others }) => [
			{ name: `${calledOf(name)}.crl`, list: crl },
			...betweenOf(others).map((one, i) => ({ name: `${calledOf(name)}-${i + 1}.crl`, list: one.crl }))
		]);
}

/** What a judgement of today goes by, besides the roots. */
export function knownNow(house: House): Known {
	return { at: house.now(), lists: listsIn(house.db).map(({ list }) => list), ended: methods(house.db) };
}

/** The files by which anybody can judge with `verify`: roots, lists, methods. */
export function trustFiles(db: Db): { name: string; content: string | Uint8Array }[] {
	return [
		...rootsOf(db).map(({ name, pem }) => ({ name, content: pem })),
		...listsIn(db).map(({ name, list }) => ({ name, content: list })),
		{ name: METHODS_FILE, content: JSON.stringify(methods(db), null, '\t') }
	];
}

/** Of the methods that are not relied on any more, in the folder of what is trusted. */
export const METHODS_FILE = 'methods.json';

/** Beside the database, so that `verify` needs only the folder. */
export function writeTrust(house: House): void {
	if (house.db.memory) return;
	const folder = path.join(house.config.folder, 'trust');
	mkdirSync(folder, { recursive: true });
	for (const { name, content } of trustFiles(house.db)) writeFileSync(path.join(folder, name), content);
}
