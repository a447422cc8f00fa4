import { createHmac } from 'node:crypto';
import { CLOSED, closedNow, type Intake } from '../../core/intake';
import { emptyPlan, type Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId, newToken, tokenHash } from '../ids';
import { count, forgive, TOO_OFTEN } from '../limits';
import { freezePlan } from '../packets/act';
import { codeFits } from '../packets/codes';
import { keyFor } from '../secrets';
import { organisation } from '../settings';
import { caseAt, checkedEntered } from './case';
import { intakeAt, templatePlan, versionOf, type KeptIntake } from './store';

/** What a visitor does before anything is sent: begins, and has what they enter kept. */

/** Somebody comes by a link of a sheet. */
export interface Invited {
	name: string;
	email: string;
	known: string;
}

export function invitedBy(house: House, intake: string, token: string): Invited | null {
	return (
		house.db
			.prepare<[string, string], Invited>(
				'SELECT name, email, known FROM intake_people WHERE token_hash = ? AND intake = ?'
			)
			.get(tokenHash(token), intake) ?? null
	);
}

/** An intake as visitors find it now: open, with what holds for a new case, or the sentence why not. */
export function openIntake(
	house: House,
	slug: string
): { intake: KeptIntake; setting: Intake; plan: Plan; no: Refusal | null } | Refusal {
	const intake = intakeAt(house, slug);
	if (isRefusal(intake)) return intake;
	const setting = versionOf(house, intake.id, intake.version);
	// one that was never opened is nobody's business
	if (!setting) return refuse('no-intake', 'There is no such page here.');
	const { zone } = organisation(house.db);
	const found = templatePlan(house, intake, setting.version);
	const no =
		closedNow(setting, intake.state, intake.handed, house.now().toISOString(), zone) ??
		(isRefusal(found) ? refuse('intake-closed', setting.closed.trim() || CLOSED, 'template') : null);
	return { intake, setting, plan: isRefusal(found) ? emptyPlan() : found.plan, no };
}

/** An address in the network as it is kept: only to count by, so under this Pellum's key. */
const counted = (house: House, address: string): string =>
	createHmac('sha256', keyFor(house, 'addresses of visitors')).update(address).digest('hex').slice(0, 32);

/** How many cases were handed in from an address within a day. */
export function handedFrom(house: House, intake: string, address: string): number {
	const since = new Date(house.now().getTime() - 86_400_000).toISOString();
	return house.db
		.prepare<[string, string, string], number>(
			`SELECT count(*) FROM (SELECT 1 FROM cases INDEXED BY cases_address
			 WHERE intake = ? AND address = ? AND handed_at > ? LIMIT 1000)`
		)
		.pluck()
		.get(intake, counted(house, address), since)!;
}

export const TOO_MANY = refuse(
	'too-many-cases',
	'Many cases came from this address today. Come back tomorrow, or ask the office. What you entered is kept here.'
);

/**
 * A visitor begins. Refuses while it is closed, without the code or the sheet's link where one is asked for, and after many from one
 * address.
 * @returns the secret of the case, known to whoever has begun it
 */
export async function beginCase(
	house: House,
	slug: string,
	wanted: { code?: string | undefined; key?: string | undefined; language: string },
	address: string
): Promise<{ token: string } | Refusal> {
	const found = openIntake(house, slug);
	if (isRefusal(found)) return found;
	if (found.no) return found.no;
	const { intake, setting, plan } = found;
	if (!(await count('caseBegun', `${intake.id} ${address}`))) return TOO_OFTEN;
	if (setting.door.by === 'code') {
		const who = `${intake.id} ${address}`;
		if (!(await count('caseDoor', who))) return TOO_OFTEN;
		if (!codeFits(house, wanted.code ?? '', setting.door.hash))
			return refuse('wrong-door-code', 'That is not the code.');
		await forgive('caseDoor', who);
	}
	const invited = wanted.key ? invitedBy(house, intake.id, wanted.key) : null;
	if (setting.door.by === 'sheet' && !invited)
		return refuse(
			'not-invited',
			'This page is for people who were sent a link of their own. Open it from your message.'
		);
	if (handedFrom(house, intake.id, address) >= setting.perAddress) return TOO_MANY;
	const { token, hash } = newToken();
	const now = house.now();
	inTransaction(house.db, () => {
		house.db
			.prepare(
				`INSERT INTO cases (id, intake, version, plan, token_hash, begun_at, seen_at, address, known, language, visitor, email)
				 VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`
			)
			.run(
				newId(now),
				intake.id,
				intake.version,
				freezePlan(house.db, plan),
				hash,
				now.toISOString(),
				now.toISOString(),
				counted(house, address),
				invited?.known ?? '{}',
				wanted.language,
				invited?.name ?? '',
				invited?.email ?? ''
			);
		house.db.prepare('UPDATE intakes SET begun = begun + 1 WHERE id = ?').run(intake.id);
	});
	return { token };
}

/** Notes how far somebody is, and keeps what was entered once their address is proved; until then it stays in their browser. */
export function keepCase(house: House, token: string, page: string, wanted: unknown): { kept: boolean } | Refusal {
	const one = caseAt(house, token);
	if (isRefusal(one)) return one;
	if (one.packet !== null) return { kept: true };
	const given = one.proved || !one.setting.proof ? checkedEntered(one, wanted) : null;
	if (isRefusal(given)) return given;
	const at = one.setting.pages.some(({ id }) => id === page) ? page : '';
	const kept = one.proved && given !== null;
	house.db
		.prepare('UPDATE cases SET page = ?, seen_at = ?, entered = coalesce(?, entered) WHERE id = ?')
		.run(at, house.now().toISOString(), kept ? JSON.stringify(given) : null, one.id);
	return { kept };
}
