import { Type, type Static } from '@sinclair/typebox';
import { PATTERN } from '../../core/keeping';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { Line } from '../../core/schema';
import { border } from '../border';
import type { Db } from '../db';
import { readSetting, writeSetting } from '../settings';

const KeepingSetting = Type.Object(
	{
		/** how copies are called that leave the house, see core/keeping */
		fileNames: Line(200, { minLength: 1 }),
		/** for how many days what is in the bin can be taken back */
		binDays: Type.Integer({ minimum: 1, maximum: 3650 }),
		/** two people of the office agree before anything is disposed of */
		two: Type.Boolean()
	},
	{ additionalProperties: false }
);
export type KeepingSetting = Static<typeof KeepingSetting>;
const settingBorder = border(KeepingSetting);
const DEFAULT: KeepingSetting = { fileNames: PATTERN, binDays: 30, two: false };

/** How the office keeps what has ended. */
export function keepingSetting(db: Db): KeepingSetting {
	const kept = readSetting(db, 'keeping');
	return kept === undefined ? DEFAULT : { ...DEFAULT, ...(JSON.parse(kept) as Partial<KeepingSetting>) };
}

/** Refuses a pattern by which every file would be called the same. */
export function setKeeping(db: Db, wanted: unknown): KeepingSetting | Refusal {
	const checked = settingBorder(wanted);
	if (isRefusal(checked)) return checked;
	if (!/\{[^{}]+\}/.test(checked.fileNames))
		return refuse(
			'pattern-same',
			'By that every file would be called the same. Put in something that differs, such as {reference}.',
			'fileNames'
		);
	writeSetting(db, 'keeping', JSON.stringify(checked));
	return checked;
}
