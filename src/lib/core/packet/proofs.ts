import type { IdentityWay } from '../identity';
import type { Recorded } from './events';
import { NOTHING_SHOWN, type Proof, type SentPacket } from './state';

/** How far somebody's proof of who they are has come, after one more event. */

export function prove<S extends SentPacket>(state: S, person: string, change: (was: Proof) => Proof): S {
	const was = state.proofs[person] ?? NOTHING_SHOWN;
	return { ...state, proofs: { ...state.proofs, [person]: change(was) } };
}

export function agreement(event: Extract<Recorded, { type: 'JudgedByOne' }>): Proof['agreed'][number] {
	const { by } = event;
	return by.kind === 'office'
		? { account: by.account, name: by.name, how: event.how }
		: { account: '', name: '', how: event.how };
}

export const shownOr = (was: Proof, way: IdentityWay, enough: boolean): Proof =>
	enough
		? { ...was, shown: [...new Set([...was.shown, way])] }
		: { ...was, failed: { ...was.failed, [way]: was.failed[way] + 1 } };

export function judged(was: Proof, { verdict, checks }: Extract<Recorded, { type: 'IdentityJudged' }>): Proof {
	const lay = checks.filter((one) => one.outcome === (verdict === 'wrong' ? 'wrong' : 'again'));
	const now: Proof = {
		...was,
		waiting: null,
		unread: verdict === 'again' ? was.unread + 1 : 0,
		last: verdict === 'right' ? null : { verdict, checks: lay.map((one) => one.check) }
	};
	return verdict === 'right' || verdict === 'wrong' ? shownOr(now, 'document', verdict === 'right') : now;
}
