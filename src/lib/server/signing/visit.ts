import { anybodyIn, mustProve, personIn, stillToShow, type PlanPerson, type SentPacket } from '../../core/packet';
import { refuse, refuseWith, type Refusal } from '../../core/refusal';
import type { House } from '../house';
import { newToken, tokenHash } from '../ids';
import { packetState } from '../packets/act';
import { findLink } from '../packets/links';

/** Somebody at the door with a link that is good for something. */
export interface Visitor {
	packet: SentPacket;
	person: PlanPerson;
	/** whether they have entered their code, or need none */
	coded: boolean;
	/** whether they have shown all of who they are that is asked for: nothing is shown before */
	proved: boolean;
	/** their link was made on their host's device, and holds for a while only */
	guest: boolean;
}

/**
 * What a link leads to. Refuses `no-link` for a wrong one, `link-revoked` for one that a newer replaced, `handed-over`
 * where their part is somebody else's now, and `link-old` for a guest's link that has run out.
 * @param pass what the browser got when they proved who they are
 */
export function visit(house: House, token: string, pass = ''): Visitor | Refusal {
	const link = /^[\w-]{43}$/.test(token) ? findLink(house.db, token) : null;
	if (!link) return refuse('no-link', 'This link is not complete, or not from here. Open it from the message again.');
	if (link.passedTo !== null)
		return refuseWith('handed-over', `You have handed this over to ${link.passedTo}.`, { name: link.passedTo });
	if (link.revoked)
		return refuse('link-revoked', 'This link has been replaced by a newer one. Look for the latest message.');
	if (link.expiresAt !== null && link.expiresAt < house.now().toISOString())
		return refuse(
			'link-old',
			'This link held only for a while. What was entered is kept. Ask your host to hand you the device again.'
		);
	const packet = packetState(house.db, link.packet);
	const person = packet.status === 'none' ? undefined : personIn(packet.plan, link.person);
	if (!person && packet.status !== 'none' && anybodyIn(packet, link.person))
		return refuse('not-needed', 'This is no longer needed of you.');
	if (packet.status === 'none' || !person) return refuse('link-gone', 'This link leads nowhere any more.');
	const coded = !mustProve(packet, person) || hasPass(house, packet.packet, person.id, pass);
	return {
		packet,
		person,
		coded,
		proved: coded && stillToShow(packet, person).length === 0,
		guest: link.expiresAt !== null
	};
}

const PASS_HOURS = 12;

/** What a browser shows from now on, in which a person has proved who they are. */
export function newPass(house: House, packet: string, person: string): string {
	const { token, hash } = newToken();
	const now = house.now();
	house.db.prepare('DELETE FROM passes WHERE expires_at < ?').run(now.toISOString());
	house.db
		.prepare('INSERT INTO passes (token_hash, packet, person, expires_at) VALUES (?, ?, ?, ?)')
		.run(hash, packet, person, new Date(now.getTime() + PASS_HOURS * 3_600_000).toISOString());
	return token;
}

function hasPass(house: House, packet: string, person: string, pass: string): boolean {
	if (pass === '') return false;
	return (
		house.db
			.prepare('SELECT 1 FROM passes WHERE token_hash = ? AND packet = ? AND person = ? AND expires_at > ?')
			.get(tokenHash(pass), packet, person, house.now().toISOString()) !== undefined
	);
}

/** Refuses to whoever has not shown yet who they are. */
export function unproved({ coded, proved }: Visitor): Refusal | null {
	if (proved) return null;
	return coded
		? refuse('not-shown', 'Show who you are first. What you entered is kept.')
		: refuse('not-proved', 'Enter your code first. What you entered is kept.');
}
