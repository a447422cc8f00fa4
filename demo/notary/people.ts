import type { Account } from '../../src/lib/server/accounts';
import { isRefusal } from '../../src/lib/core/refusal';
import type { House } from '../../src/lib/server/house';
import { drawSeal, endNotary, keepNotary } from '../../src/lib/server/notary';

/** The notaries of the demo: one who acts, one who keeps other hours, one whose commission has ended. */
const day = (years: number): string => new Date(Date.now() + years * 365.25 * 86_400_000).toISOString().slice(0, 10);

const COMMISSIONS = {
	isolde: {
		name: 'Isolde Marchbank',
		email: 'marchbank@notary.example',
		number: 'NP 4471',
		jurisdiction: 'England and Wales',
		venue: 'Harrow Wells',
		zone: 'Europe/London',
		from: day(-3),
		until: day(2),
		hours: { days: [1, 2, 3, 4, 5], from: '09:00', to: '17:30' },
		fees: { acknowledgement: '£35', 'sworn statement': '£40', 'witnessed signature': '£30', 'certified copy': '£25' }
	},
	ambrose: {
		name: 'Ambrose Tielemans',
		email: 'tielemans@notary.example',
		number: 'NP 5102',
		jurisdiction: 'England and Wales',
		venue: 'Oldmere',
		zone: 'Europe/London',
		from: day(-1),
		until: day(4),
		hours: { days: [2, 4, 6], from: '12:00', to: '20:00' },
		fees: { 'sworn statement': '£45' }
	},
	conrad: {
		name: 'Conrad Vesey',
		email: 'vesey@notary.example',
		number: 'NP 2088',
		jurisdiction: 'England and Wales',
		venue: 'Staunton',
		zone: 'Europe/London',
		from: day(-6),
		until: day(-0.2),
		hours: { days: [1, 2, 3], from: '09:00', to: '13:00' },
		fees: {}
	}
};
export type NotaryName = keyof typeof COMMISSIONS;
export const NOTARY = COMMISSIONS.isolde;

export async function makeNotaries(house: House, owner: Account): Promise<Record<NotaryName, string>> {
	const by = { account: owner, address: '' };
	const made: [string, string][] = [];
	for (const [name, commission] of Object.entries(COMMISSIONS)) {
		const kept = keepNotary(house, by, commission, null);
		if (isRefusal(kept)) throw new Error(kept.say);
		await drawSeal(house, kept.id);
		made.push([name, kept.id]);
	}
	const all = Object.fromEntries(made) as Record<NotaryName, string>;
	endNotary(house, by, all.conrad, true);
	return all;
}
