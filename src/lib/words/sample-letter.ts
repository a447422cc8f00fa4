import type { MessagePurpose } from '../core/packet';
import type { MailFacts } from './mail';

/** Letters to look at: what they would say, and every purpose that one to somebody taking part can have. */
export const PURPOSES: MessagePurpose[] = [
	'your turn',
	'nudge',
	'ending',
	'code',
	'state so far',
	'spared',
	'let go',
	'wording answered',
	'being looked at',
	'paper again',
	'paper refused',
	'appointment',
	'copies',
	'declined',
	'withdrawn',
	'expired'
];
export const SAMPLE_FACTS: Omit<MailFacts, 'purpose' | 'to'> = {
	sender: { name: 'Odile Farrow', email: 'odile@brindlevale.example', organisation: 'Brindlevale' },
	title: 'Engagement',
	reference: 'P-7K3QM',
	subject: '',
	message: 'Hello',
	note: 'Only you',
	until: '4 December 2026',
	others: ['Tamsin', 'Ruben'],
	link: 'http://127.0.0.1/s/x',
	ended: { name: 'Tamsin', reason: 'no' },
	code: { code: '123456', minutes: 10 },
	say: 'so be it',
	again: {
		pages: [0, 2],
		doubts: [
			{ what: 'place empty', page: 0 },
			{ what: 'foreign page', page: null }
		],
		word: 'once more'
	},
	appointment: { when: '7 December 2026, 14:00', minutes: 30, notary: 'Isolde Marchbank', fee: '£40' },
	colour: '#14525c'
};
