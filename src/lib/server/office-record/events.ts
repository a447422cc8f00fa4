import type { Power } from '../../core/access';
import type { Level } from '../accounts/levels';

/** `power`: what a member may from now on; null: they are none any more */
export type FolderChange =
	| { what: 'made' | 'opened' | 'closed' | 'removed' }
	| { what: 'member'; account: string; name: string; power: Power | null };

/** What the office's record tells of: everything that is done to accounts, settings and keys, and what was refused. */
export type OfficeEvent =
	| { type: 'SignedIn'; how: 'password' | 'passkey' | 'directory'; second?: 'code' | 'recovery code' | 'passkey' }
	| { type: 'SignInRefused'; account: string | null; why: 'password' | 'code' | 'passkey' | 'directory' | 'too often' }
	| { type: 'SignedOut' }
	| { type: 'SessionsEnded'; account: string; name: string; sessions: number }
	| { type: 'AccessRefused'; to: string }
	| { type: 'SetUp'; organisation: string }
	| {
			type: 'AccountMade';
			account: string;
			name: string;
			email: string;
			level: Level;
			how: 'invited' | 'directory' | 'set-up';
	  }
	| { type: 'InvitedAgain'; account: string; name: string }
	| { type: 'LevelChanged'; account: string; name: string; from: Level; to: Level }
	| { type: 'AccountClosed'; account: string; name: string }
	| { type: 'LetterRefused'; account: string; name: string; why: string }
	| { type: 'ResetAsked'; account: string; name: string }
	| { type: 'PasswordChosen'; account: string; name: string; by_letter: boolean }
	| { type: 'PasskeyAdded'; account: string; called: string }
	| { type: 'PasskeyRemoved'; account: string; called: string }
	| { type: 'CodesBegun'; account: string }
	| { type: 'CodesEnded'; account: string; name: string }
	| { type: 'RecoveryCodesMade'; account: string }
	| { type: 'SettingsChanged'; what: string; from: Record<string, unknown>; to: Record<string, unknown> }
	| ({ type: 'FolderChanged'; folder: string } & FolderChange)
	| { type: 'HoldSet'; hold: string; called: string; of: 'packets' | 'person' | 'search'; why: string }
	| { type: 'HoldLifted'; hold: string; called: string; why: string }
	/** under which number, how many packets; `second`: who had agreed before, '' where one was enough */
	| { type: 'Disposed'; number: number; packets: number; why: string; second: string }
	/** somebody was handed all that is held on a person, or that was forgotten: who they are is not told */
	| { type: 'PersonTold'; packets: number }
	| { type: 'PersonForgotten'; gone: number; stay: number }
	| { type: 'KeysMade'; key: string; of: string }
	/** a certificate from an authority, with its key */
	| { type: 'KeyTakenIn'; of: string }
	| { type: 'KeyWithdrawn'; key: string; why: 'keyCompromise' | 'cessationOfOperation'; note: string }
	| { type: 'ListsRenewed'; until: string }
	/** another time-stamp over the certificate of a disposal */
	| { type: 'CertificateStamped'; number: number; until: string }
	| { type: 'ApiKeyMade'; key: string; called: string; account: string; rights: string[] }
	| { type: 'ApiKeyEnded'; key: string; called: string; account: string }
	/** what another program asked for by a key, and what it was answered: an HTTP status */
	| { type: 'Called'; what: string; status: number }
	| { type: 'HookMade' | 'HookEnded'; hook: string; address: string; account: string }
	| { type: 'CalendarShared' | 'CalendarEnded'; account: string }
	| { type: 'ClockJumped'; seconds: number }
	| { type: 'BackupMade'; file: string; events: number }
	| { type: 'Restored'; file: string; events: number };

/** `key`: the name of the API key by which another program came for them */
export type OfficeActor =
	{ kind: 'office'; account: string; name: string; key?: string } | { kind: 'visitor' } | { kind: 'pellum' };

export type RecordedOfficeEvent = OfficeEvent & {
	n: number;
	at: string;
	by: OfficeActor;
	/** the network address it came from */
	address?: string;
};

/** A disposal’s number as it is written: D-0007. */
export const numberOf = (number: number): string => `D-${String(number).padStart(4, '0')}`;

/** One sentence for whoever reads the record. */
export function sentenceOf(event: OfficeEvent): string {
	switch (event.type) {
		case 'SignedIn':
			return `Signed in by ${event.how}${event.second ? ` and ${event.second}` : ''}.`;
		case 'SignInRefused':
			return `Was not let in: ${{ password: 'wrong password', code: 'wrong code', passkey: 'the passkey did not fit', directory: 'the directory gave no level here', 'too often': 'too many tries' }[event.why]}.`;
		case 'SignedOut':
			return 'Signed out.';
		case 'SessionsEnded':
			return `Ended ${event.sessions === 1 ? 'a session' : `${event.sessions} sessions`} of ${event.name}.`;
		case 'AccessRefused':
			return `Was refused: ${event.to}.`;
		case 'SetUp':
			return `Set this Pellum up for ${event.organisation}.`;
		case 'AccountMade': {
			const who = `${event.name}, ${event.email}`;
			if (event.how === 'directory') return `${who}, came from the directory as ${event.level}.`;
			return event.how === 'set-up'
				? `${who}, has an account as ${event.level}.`
				: `Invited ${who}, as ${event.level}.`;
		}
		case 'InvitedAgain':
			return `Invited ${event.name} again.`;
		case 'LevelChanged':
			return `Made ${event.name}, who was ${event.from}, ${event.to}.`;
		case 'AccountClosed':
			return `Closed the account of ${event.name}.`;
		case 'LetterRefused':
			return `A letter to ${event.name} came back: ${event.why}.`;
		case 'ResetAsked':
			return `A letter to choose a new password was asked for ${event.name}.`;
		case 'PasswordChosen':
			return `${event.name} chose a password${event.by_letter ? ' by the link in a letter' : ''}.`;
		case 'PasskeyAdded':
			return `Added the passkey “${event.called}”.`;
		case 'PasskeyRemoved':
			return `Removed the passkey “${event.called}”.`;
		case 'CodesBegun':
			return 'Signs in with codes from a device from now on.';
		case 'CodesEnded':
			return `Codes and passkeys of ${event.name} were taken away.`;
		case 'RecoveryCodesMade':
			return 'Made new recovery codes.';
		case 'SettingsChanged':
			return `Changed ${event.what}: ${changed(event.from, event.to)}.`;
		case 'FolderChanged':
			return `Folder “${event.folder}”: ${folderSentence(event)}.`;
		case 'HoldSet':
			return `Set the legal hold “${event.called}”: ${event.why}`;
		case 'HoldLifted':
			return `Lifted the legal hold “${event.called}”: ${event.why}`;
		case 'Disposed':
			return `Disposed of ${event.packets === 1 ? 'a packet' : `${event.packets} packets`}, certificate ${numberOf(event.number)}${event.second ? `, as ${event.second} had agreed` : ''}: ${event.why}`;
		case 'PersonTold':
			return `Fetched all that is held on a person, in ${event.packets === 1 ? 'one packet' : `${event.packets} packets`}.`;
		case 'PersonForgotten':
			return `Forgot a person: ${event.gone} of their packets went, ${event.stay} stay.`;
		case 'KeysMade':
			return `Made the ${event.key} key of ${event.of}.`;
		case 'KeyTakenIn':
			return `Took in a certificate of ${event.of}, which seals from now on.`;
		case 'KeyWithdrawn':
			return `Withdrew the ${event.key} key, ${event.why === 'keyCompromise' ? 'which somebody else may have' : 'which is used no more'}: ${event.note}`;
		case 'CertificateStamped':
			return `Certificate ${numberOf(event.number)} got another time-stamp, which proves it until ${event.until}.`;
		case 'ListsRenewed':
			return `Has a newer revocation list for the certificate that was taken in, good until ${event.until}.`;
		case 'ApiKeyMade':
			return `Made the API key “${event.called}”, which may ${event.rights.join(', ')}.`;
		case 'ApiKeyEnded':
			return `Ended the API key “${event.called}”.`;
		case 'Called':
			return `Asked for ${event.what}, and was ${event.status < 400 ? 'answered' : `refused (${event.status})`}.`;
		case 'HookMade':
			return `Has what happens told to ${event.address}.`;
		case 'HookEnded':
			return `Has nothing told to ${event.address} any more.`;
		case 'CalendarShared':
			return 'Made a secret address for a calendar.';
		case 'CalendarEnded':
			return 'Ended the secret address of a calendar.';
		case 'ClockJumped':
			return `The machine's clock jumped ${event.seconds < 0 ? 'back' : 'forward'} by ${Math.abs(event.seconds)} seconds.`;
		case 'BackupMade':
			return `Backed up ${event.events} events to ${event.file}.`;
		case 'Restored':
			return `Restored from ${event.file} with ${event.events} events.`;
	}
}

function folderSentence(change: FolderChange): string {
	switch (change.what) {
		case 'made':
			return 'made, open to the office';
		case 'opened':
			return 'open to the whole office from now on';
		case 'closed':
			return 'closed, for its members only';
		case 'member':
			return change.power === null ? `${change.name} is no member any more` : `${change.name} ${change.power} in it`;
		case 'removed':
			return 'taken away, being empty';
	}
}

function changed(from: Record<string, unknown>, to: Record<string, unknown>): string {
	const names = [...new Set([...Object.keys(from), ...Object.keys(to)])];
	const said = (value: unknown) => (value === undefined || value === '' ? 'nothing' : JSON.stringify(value));
	return names.map((name) => `${name} from ${said(from[name])} to ${said(to[name])}`).join(', ') || 'nothing';
}
