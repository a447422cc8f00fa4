import { isoDay } from '../calendar';
import { refuse, type Refusal } from '../refusal';
import type { Intake } from './schema';

/** Where an intake stands with the office: being made, open to visitors, or closed by hand. */
export type IntakeState = 'making' | 'open' | 'closed';

/** What is said where the office has written nothing. */
export const CLOSED = 'This is closed at present.';

/**
 * Why nobody can start now: it was never opened or closed by hand, its days have not come or are over, or it has had as many cases
 * as it takes. Whoever has started goes on. The sentence is the office's own.
 * @param now ISO 8601
 * @param cases how many have been handed in
 */
export function closedNow(
	intake: Intake,
	state: IntakeState,
	cases: number,
	now: string,
	zone: string
): Refusal | null {
	const today = isoDay(zone, now);
	const no = (why: string) => refuse('intake-closed', intake.closed.trim() || CLOSED, why);
	if (state !== 'open') return no('state');
	if (intake.from && today < intake.from) return no('from');
	if (intake.to && today > intake.to) return no('to');
	return intake.most !== undefined && cases >= intake.most ? no('most') : null;
}

/** Whether an address may start: one of the domains the office has named, or of one below it (RFC 5321 §4.1.2, case put aside). */
export function mayStart(intake: Pick<Intake, 'door'>, email: string): boolean {
	if (intake.door.by !== 'domains') return true;
	const domain = email.slice(email.lastIndexOf('@') + 1).toLowerCase();
	return intake.door.domains.some((one) => {
		const wanted = one.trim().toLowerCase().replace(/^@/, '');
		return wanted !== '' && (domain === wanted || domain.endsWith(`.${wanted}`));
	});
}
