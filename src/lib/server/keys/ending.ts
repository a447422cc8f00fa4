import { Type } from '@sinclair/typebox';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { Line } from '../../core/schema';
import { border } from '../border';
import type { House } from '../house';
import { note, type Doer } from '../office-record';
import { writeSetting } from '../settings';
import { methods, type Ended } from './methods';
import { writeTrust } from './trust';

const Wanted = Type.Object(
	{
		method: Type.Union([Type.Literal('sha256'), Type.Literal('sha384')]),
		/** ISO day; '': it is relied on again */
		from: Type.String({ pattern: '^(\\d{4}-\\d{2}-\\d{2})?$' }),
		why: Line(200, { minLength: 3 })
	},
	{ additionalProperties: false }
);
const methodBorder = border(Wanted);

/**
 * Says from when on a method is not relied on any more: new keys are of another one, and copies whose last time-stamp is of it get
 * another before that day. Refuses to leave no method at all.
 */
export function endMethod(house: House, by: Doer, wanted: unknown): Ended | Refusal {
	const wish = methodBorder(wanted);
	if (isRefusal(wish)) return wish;
	const from = methods(house.db);
	const to: Ended = { ...from };
	if (wish.from === '') delete to[wish.method];
	else to[wish.method] = new Date(`${wish.from}T00:00:00Z`).toISOString();
	if (to.sha256 !== undefined && to.sha384 !== undefined)
		return refuse('no-method-left', 'One of the two has to be relied on: there would be nothing to seal with.', 'from');
	writeSetting(house.db, 'methods', JSON.stringify(to));
	note(house, by, {
		type: 'SettingsChanged',
		what: `methods (${wish.why})`,
		from: from as Record<string, unknown>,
		to: to as Record<string, unknown>
	});
	writeTrust(house);
	return to;
}
