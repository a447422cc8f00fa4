import { Type, type Static } from '@sinclair/typebox';
import { Line } from '../core/schema';
import { isZone } from '../core/calendar';
import { isRefusal, refuse, type Refusal } from '../core/refusal';
import { border } from './border';
import type { Db } from './db';

const Organisation = Type.Object(
	{
		name: Line(120, { minLength: 1 }),
		/** shown at the head of the signing page and in messages */
		colour: Type.String({ pattern: '^#[0-9a-fA-F]{6}$' }),
		/** digest of a PNG, or '' */
		logo: Type.String({ pattern: '^([0-9a-f]{64})?$' }),
		zone: Line(60),
		/** whether the record says how long each page was in view */
		seenPages: Type.Optional(Type.Boolean()),
		/** whether it is counted, per field of a template, where people stumble: never who, nor what they typed */
		stumbles: Type.Optional(Type.Boolean()),
		/** whether documents of a packet that is out may be exchanged while nobody has finished */
		exchange: Type.Optional(Type.Boolean()),
		/** whether sheets may be dropped into the folders of batches that stand open */
		sheetsIn: Type.Optional(Type.Boolean()),
		/** how many packets of a batch go in a minute; without it, as fast as can be */
		pace: Type.Optional(Type.Integer({ minimum: 1, maximum: 6000 }))
	},
	{ additionalProperties: false }
);
export type Organisation = Static<typeof Organisation>;
const organisationBorder = border(Organisation);

/** An organisation as it stood, from its JSON. */
export function organisationIn(json: string): Organisation | Refusal {
	try {
		return organisationBorder(JSON.parse(json));
	} catch {
		return refuse('not-json', 'That can’t be read.');
	}
}

const DEFAULT: Organisation = { name: 'Your organisation', colour: '#14525C', logo: '', zone: 'Europe/London' };

export function readSetting(db: Db, key: string): string | undefined {
	return db.prepare<[string], { value: string }>('SELECT value FROM meta WHERE key = ?').get(key)?.value;
}

export function writeSetting(db: Db, key: string, value: string): void {
	db.prepare('INSERT INTO meta (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value').run(
		key,
		value
	);
}

export function organisation(db: Db): Organisation {
	const stored = readSetting(db, 'organisation');
	return stored === undefined ? DEFAULT : (JSON.parse(stored) as Organisation);
}

/** Whether somebody has said yet what it is called. */
export const isNamed = (db: Db): boolean => organisation(db).name !== DEFAULT.name;

/** Refuses an empty name, a colour that is none, an unknown time zone. */
export function setOrganisation(
	db: Db,
	wanted: Organisation,
	how: 'write' | 'only judge' = 'write'
): Organisation | Refusal {
	const checked = organisationBorder(wanted);
	if (isRefusal(checked)) return checked;
	if (!isZone(checked.zone)) return refuse('bad-zone', `“${checked.zone}” is not a time zone.`, 'zone');
	if (contrastWithWhite(checked.colour) < 4.5)
		return refuse('pale-colour', 'White letters can’t be read on that colour. Choose a darker one.', 'colour');
	if (how === 'write') writeSetting(db, 'organisation', JSON.stringify(checked));
	return checked;
}

/** WCAG 2.2 §1.4.3, relative luminance against white. */
function contrastWithWhite(colour: string): number {
	const [r, g, b] = [1, 3, 5].map((i) => {
		const c = parseInt(colour.slice(i, i + 2), 16) / 255;
		return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
	}) as [number, number, number];
	return 1.05 / (0.2126 * r + 0.7152 * g + 0.0722 * b + 0.05);
}
