import { Type, type Static } from '@sinclair/typebox';
import { isRefusal, type Refusal } from '../../core/refusal';
import { border } from '../border';
import type { Db } from '../db';
import { readSetting, writeSetting } from '../settings';

const PaperSetting = Type.Object(
	{
		/** whether anybody may be let sign on paper */
		permitted: Type.Boolean(),
		/** whether what is surely right goes on by itself; everything else waits for somebody of the office */
		goesOn: Type.Boolean(),
		/** where it can be sent by post; empty: only by the link */
		post: Type.String({ maxLength: 400 })
	},
	{ additionalProperties: false }
);
export type PaperSetting = Static<typeof PaperSetting>;
const settingBorder = border(PaperSetting);
const DEFAULT: PaperSetting = { permitted: false, goesOn: false, post: '' };

export function paperSetting(db: Db): PaperSetting {
	const kept = readSetting(db, 'paper');
	return kept === undefined ? DEFAULT : { ...DEFAULT, ...(JSON.parse(kept) as Partial<PaperSetting>) };
}

export function setPaper(db: Db, wanted: unknown): PaperSetting | Refusal {
	const checked = settingBorder(wanted);
	if (!isRefusal(checked)) writeSetting(db, 'paper', JSON.stringify(checked));
	return checked;
}
