import type { Work } from '../../core/packet';

/** What Pellum does by itself, as people call it: the work, what waits for it, and one piece. */
export const WORK: Record<Work, { name: string; one: string; many: string; a: string }> = {
	seal: { name: 'Sealing', one: 'packet', many: 'packets', a: 'its sealing' },
	message: { name: 'Sending messages', one: 'message', many: 'messages', a: 'a message about it' },
	letter: { name: 'Sending letters about accounts', one: 'letter', many: 'letters', a: 'a letter about an account' },
	backup: { name: 'Backing up', one: 'backup', many: 'backups', a: 'a backup' },
	batch: { name: 'Sending batches', one: 'batch', many: 'batches', a: 'a batch’s sending' },
	case: { name: 'Sending codes to visitors', one: 'code', many: 'codes', a: 'a code to a visitor' },
	follow: { name: 'What follows cases', one: 'follow-up', many: 'follow-ups', a: 'what follows it' },
	identity: { name: 'Asking the ID desk', one: 'check', many: 'checks', a: 'a look at who somebody is' },
	paper: {
		name: 'Looking at paper that came back',
		one: 'return',
		many: 'returns',
		a: 'a look at what came back on paper'
	},
	notary: { name: 'Playing notaries', one: 'step', many: 'steps', a: 'what its notary does next' },
	words: { name: 'Reading what has ended', one: 'packet', many: 'packets', a: 'the words it is found by' },
	forget: { name: 'Deleting pictures of documents', one: 'packet', many: 'packets', a: 'the deleting of its pictures' },
	keeping: {
		name: 'Keeping and disposing',
		one: 'piece of work',
		many: 'pieces of work',
		a: 'a certificate of disposal'
	},
	pace: { name: 'Reckoning how long things take', one: 'packet', many: 'packets', a: 'its forecast' },
	hook: { name: 'Telling other programs', one: 'message', many: 'messages', a: 'a message to another program' },
	read: { name: 'Reading of scans', one: 'document', many: 'documents', a: 'the reading of a scan' }
};
