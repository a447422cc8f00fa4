import { Type, type Static } from '@sinclair/typebox';
import { isoDay } from '../calendar';
import { refuse, type Refusal } from '../refusal';
import { Line } from '../schema';
import { ACT_KINDS } from './asked';

/** A notary's commission: who, by which number, where and until when, the hours they keep, what each act costs. */

const Day = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' });
const Time = Type.String({ pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' });

export const CommissionSchema = Type.Object(
	{
		name: Line(120, { minLength: 1 }),
		email: Line(254, { minLength: 3 }),
		number: Line(60, { minLength: 1 }),
		jurisdiction: Line(120, { minLength: 1 }),
		/** where the acts are done, unless the notary says otherwise */
		venue: Line(120, { minLength: 1 }),
		zone: Line(60, { minLength: 1 }),
		/** ISO 8601 days, both included */
		from: Day,
		until: Day,
		/** the days of the week (1: Monday … 7: Sunday) and the time of day */
		hours: Type.Object(
			{
				days: Type.Array(Type.Integer({ minimum: 1, maximum: 7 }), { minItems: 1, maxItems: 7, uniqueItems: true }),
				from: Time,
				to: Time
			},
			{ additionalProperties: false }
		),
		/** as they are shown, with their currency; no payment is taken */
		fees: Type.Partial(
			Type.Object(Object.fromEntries(ACT_KINDS.map((kind) => [kind, Line(40)])), { additionalProperties: false })
		)
	},
	{ additionalProperties: false }
);
export type CommissionGiven = Static<typeof CommissionSchema>;
export type Commission = CommissionGiven & { id: string };

/** What of a commission the record holds. */
export type CommissionSaid = Pick<Commission, 'name' | 'number' | 'jurisdiction' | 'until'>;

/** Why nothing can be done under this commission at that moment (ISO 8601); null where it holds. */
export function commissionFault({ name, zone, from, until }: CommissionGiven, at: string): Refusal | null {
	const day = isoDay(zone, at);
	if (day > until)
		return refuse(
			'commission-ended',
			`The commission of ${name} ended on ${until}. Choose another notary; all else is kept.`
		);
	if (day < from) return refuse('commission-not-begun', `The commission of ${name} begins on ${from}.`);
	return null;
}

/** Whether a session of so many minutes lies within the notary's hours. */
export function isInHours({ zone, hours }: CommissionGiven, at: string, minutes: number): boolean {
	const [start, end] = [localOf(zone, at), localOf(zone, new Date(Date.parse(at) + minutes * 60_000).toISOString())];
	return (
		hours.days.includes(start.weekday) &&
		start.weekday === end.weekday &&
		start.time >= hours.from &&
		end.time <= hours.to
	);
}

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

function localOf(zone: string, at: string): { weekday: number; time: string } {
	const parts = new Intl.DateTimeFormat('en-GB', {
		timeZone: zone,
		weekday: 'short',
		hour: '2-digit',
		minute: '2-digit',
		hourCycle: 'h23'
	}).formatToParts(new Date(at));
	const part = (type: string) => parts.find((one) => one.type === type)?.value ?? '';
	return { weekday: WEEKDAYS.indexOf(part('weekday')) + 1, time: `${part('hour')}:${part('minute')}` };
}

const DAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** The hours in words, such as `Monday, Tuesday, 09:00 to 17:00`. */
export function hoursInWords({ hours }: Pick<CommissionGiven, 'hours'>): string {
	const days = [...hours.days].sort().map((day) => DAY_NAMES[day - 1]);
	return `${days.join(', ')}, ${hours.from} to ${hours.to}`;
}
