import { house } from '$lib/server';
import { listAccounts } from '$lib/server/accounts';
import { officeEvents, sentenceOf, type RecordedOfficeEvent } from '$lib/server/office-record';

const AT_A_TIME = 50;

export const load = ({ url }) => {
	const before = Number(url.searchParams.get('before')) || undefined;
	const events = officeEvents(house().db, before, AT_A_TIME + 1);
	const names = new Map(listAccounts(house()).map(({ id, name }) => [id, name]));
	const who = ({ by }: RecordedOfficeEvent) =>
		by.kind === 'office'
			? by.key === undefined
				? by.name
				: `${by.name}, by key “${by.key}”`
			: by.kind === 'pellum'
				? 'Pellum'
				: 'Somebody not signed in';
	return {
		events: events.slice(0, AT_A_TIME).map((event) => ({
			n: event.n,
			at: event.at,
			who: who(event),
			// whose account it was about, where only its number is kept
			about: 'account' in event && !('name' in event) && event.account ? (names.get(event.account) ?? '') : '',
			from: event.address ?? '',
			say: sentenceOf(event)
		})),
		next: events.length > AT_A_TIME ? events[AT_A_TIME - 1]!.n : null
	};
};
