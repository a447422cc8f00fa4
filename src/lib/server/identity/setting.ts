import { Type, type Static } from '@sinclair/typebox';
import { MOST } from '../../core/identity';
import { isRefusal, type Refusal } from '../../core/refusal';
import { border } from '../border';
import type { Db } from '../db';
import { readSetting, writeSetting } from '../settings';

const closed = { additionalProperties: false } as const;

const IdentitySetting = Type.Object(
	{
		/** whoever showed who they are is not asked again for so many days at most; 0: always asked again */
		known: Type.Integer({ minimum: 0, maximum: MOST.days }),
		/** so many of the office must agree on somebody who is held */
		judges: Type.Integer({ minimum: 1, maximum: 2 }),
		/** pictures are deleted so many days after the packet has ended */
		keep: Type.Integer({ minimum: 1, maximum: MOST.days }),
		/** letters that may be off in one part of a name */
		lettersOff: Type.Integer({ minimum: 0, maximum: 3 })
	},
	closed
);
export type IdentitySetting = Static<typeof IdentitySetting>;
const settingBorder = border(IdentitySetting);
const DEFAULT: IdentitySetting = { known: 0, judges: 1, keep: 90, lettersOff: 1 };

export function identitySetting(db: Db): IdentitySetting {
	const kept = readSetting(db, 'identity');
	return kept === undefined ? DEFAULT : { ...DEFAULT, ...(JSON.parse(kept) as Partial<IdentitySetting>) };
}

export function setIdentity(db: Db, wanted: unknown): IdentitySetting | Refusal {
	const checked = settingBorder(wanted);
	if (!isRefusal(checked)) writeSetting(db, 'identity', JSON.stringify(checked));
	return checked;
}

/** How the stand-in behaves. */
export const DESK_MODES = ['as it is', 'unsure', 'fails', 'slow', 'down'] as const;
export type DeskMode = (typeof DESK_MODES)[number];

export function deskMode(db: Db): DeskMode {
	const kept = readSetting(db, 'id-desk') as DeskMode | undefined;
	return kept !== undefined && DESK_MODES.includes(kept) ? kept : 'as it is';
}

export const setDeskMode = (db: Db, mode: DeskMode): void => writeSetting(db, 'id-desk', mode);
