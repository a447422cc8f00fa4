import { ACTS } from '../notary';
import { beforeNotary, notaryIn } from '../route';
import type { PageAdded, Recorded } from './events';
import { EVERYBODY, type Field, type Plan, type PlanPerson } from './plan';
import { isOpen, NO_SESSION, stillAt, type SentPacket, type Session } from './state';

/** How far a session before a notary has come. Pure, as all of `evolve`. */

type SessionEvent = Extract<
	Recorded,
	{
		type:
			| 'SessionAppointed'
			| 'SessionBegun'
			| 'SessionPaused'
			| 'RoomEntered'
			| 'RoomLeft'
			| 'PersonConfirmed'
			| 'OathTaken'
			| 'TurnGiven'
			| 'FieldsPlaced'
			| 'PartOpenedAgain'
			| 'ActDrawn'
			| 'ResultApproved'
			| 'ResultDoubted';
	}
>;

/** The fields of a notary's act, whatever it says: there is one of each. */
const ACT_FIELDS = { text: 'notary-act', seal: 'notary-seal' } as const;

export function inSession<S extends SentPacket>(state: S, event: SessionEvent): S {
	const was = state.session;
	const now = (change: Partial<Session>): S => ({ ...state, session: { ...was, ...change } });
	switch (event.type) {
		case 'SessionAppointed':
			return now({ appointment: { starts: event.starts, minutes: event.minutes } });
		case 'SessionBegun':
			return now({
				running: true,
				begun: was.begun ?? { at: event.at, commission: event.commission, fee: event.fee }
			});
		case 'SessionPaused':
			return now({ running: false, turn: null });
		case 'RoomEntered':
			return now({ present: [...was.present.filter((id) => id !== event.person), event.person] });
		case 'RoomLeft':
			return now({
				present: was.present.filter((id) => id !== event.person),
				turn: was.turn === event.person ? null : was.turn
			});
		case 'PersonConfirmed':
			return now({ confirmed: { ...was.confirmed, [event.who]: event.how } });
		case 'OathTaken':
			return now({ sworn: [...was.sworn, event.person] });
		case 'TurnGiven':
			return now({ turn: event.who });
		case 'FieldsPlaced': {
			const next = now(UNDRAWN);
			return {
				...next,
				plan: placedPlan(state.plan, event.fields),
				planDigest: event.plan
			};
		}
		case 'PartOpenedAgain': {
			const answers = Object.entries(state.answers).filter(
				([id]) => state.plan.fields.find((field) => field.id === id)?.person !== event.who
			);
			const next = now({ ...UNDRAWN, turn: null });
			return { ...next, plan: withoutAct(state.plan), answers: Object.fromEntries(answers) };
		}
		case 'ActDrawn': {
			const { text, added } = event;
			const next = now({
				drawn: { at: event.at, text },
				approved: [],
				doubts: {},
				...(added && { added: { paper: added.paper, page: pagesOf(state.plan, added.paper) } })
			});
			return { ...next, plan: drawnPlan(state.plan, event.fields, added), planDigest: event.plan };
		}
		case 'ResultApproved': {
			const { [event.person]: _doubt, ...doubts } = was.doubts;
			return now({ approved: [...was.approved, event.person], doubts });
		}
		case 'ResultDoubted':
			return now({
				approved: was.approved.filter((id) => id !== event.person),
				doubts: { ...was.doubts, [event.person]: event.why }
			});
	}
}

const UNDRAWN = { drawn: null, approved: [], doubts: {} } satisfies Partial<Session>;

const pagesOf = (plan: Plan, paper: string): number => plan.papers.find((one) => one.id === paper)?.pages.length ?? 0;

/** The plan with places that the notary has added. */
export const placedPlan = (plan: Plan, fields: readonly Field[]): Plan => ({
	...plan,
	fields: [...plan.fields, ...fields]
});

/** The plan with the notary's act on it, in the place of an earlier one, and with the page that was added for it. */
export function drawnPlan(plan: Plan, fields: readonly Field[], added?: PageAdded): Plan {
	return placedPlan(
		{
			...withoutAct(plan),
			papers: plan.papers.map((paper) =>
				added && paper.id === added.paper ? { ...paper, digest: added.now, pages: [...paper.pages, added.page] } : paper
			)
		},
		fields
	);
}

const ACT: string[] = Object.values(ACT_FIELDS);
const withoutAct = (plan: Plan): Plan => ({ ...plan, fields: plan.fields.filter((field) => !ACT.includes(field.id)) });

/** Whether a session may go on now: it is the notary's turn and theirs who come before. */
export function isSessionOpen(packet: SentPacket): boolean {
	const notary = notaryIn(packet.plan);
	return notary !== undefined && isOpen(packet) && stillAt(packet).includes(notary.id);
}

/** Those before the notary whom no rule, and no end of their own, has left out. */
export function comersOf(packet: SentPacket): PlanPerson[] {
	return beforeNotary(packet.plan).filter(({ id }) => !['skipped', 'declined'].includes(packet.people[id]?.is ?? ''));
}

/** Whether somebody is in the room: by their own device, or by the notary's. */
export function isInRoom({ session, plan }: SentPacket, person: PlanPerson): boolean {
	return session.present.includes(isGuestOfNotary(plan, person) ? person.hostedBy! : person.id);
}

/** Whether somebody does their part on the notary's device. */
export const isGuestOfNotary = (plan: Plan, { deliver, hostedBy }: PlanPerson): boolean =>
	deliver === 'in person' && hostedBy !== undefined && hostedBy === notaryIn(plan)?.id;

/** What a session knows of somebody is of nobody any more: another one may be there now. */
export function forgotten(session: Session, person: string): Session {
	const { [person]: _known, ...confirmed } = session.confirmed;
	const { [person]: _doubt, ...doubts } = session.doubts;
	const but = (ids: string[]) => ids.filter((id) => id !== person);
	return {
		...session,
		confirmed,
		doubts,
		present: but(session.present),
		sworn: but(session.sworn),
		approved: but(session.approved),
		turn: session.turn === person ? null : session.turn
	};
}

/** After the plan was put right: what was drawn up shows something else now; another notary begins anew. */
export function afterCorrection(session: Session, was: Plan, now: Plan): Session {
	const [before, after] = [notaryIn(was), notaryIn(now)];
	if (!after || before?.id !== after.id || before.notary?.commission !== after.notary?.commission) return NO_SESSION;
	return { ...session, ...UNDRAWN, running: false, turn: null };
}

/** How far somebody of a session has come, as the sender sees it. */
export type Stage =
	| 'not yet'
	| 'invited'
	| 'identity shown'
	| 'questions answered'
	| 'waiting'
	| 'in session'
	| 'signed'
	| 'approved'
	| 'sealed'
	| 'left out';

/** Where each of a session stands now, the notary last; empty where there is none. */
export function stagesOf(packet: SentPacket): { person: string; stage: Stage; doubt: string }[] {
	const notary = notaryIn(packet.plan);
	if (!notary) return [];
	return [...beforeNotary(packet.plan), notary].map(({ id }) => ({
		person: id,
		stage: stageOf(packet, id),
		doubt: packet.session.doubts[id] ?? ''
	}));
}

function stageOf(packet: SentPacket, id: string): Stage {
	const { session } = packet;
	const standing = packet.people[id]?.is ?? 'waiting';
	if (packet.status === 'completed' && standing === 'done') return packet.evidence === null ? 'signed' : 'sealed';
	if (standing === 'skipped' || standing === 'declined') return 'left out';
	if (standing === 'waiting') return 'not yet';
	if (session.approved.includes(id)) return 'approved';
	if (standing === 'done') return 'signed';
	if (session.present.includes(id)) return session.running ? 'in session' : 'waiting';
	const shown = packet.proofs[id]?.shown ?? [];
	if (shown.includes('questions')) return 'questions answered';
	return shown.includes('document') ? 'identity shown' : 'invited';
}

/** The act, as a field of text and, where there is one, the notary's seal beside it. Points; `rect` holds both, `size` is the text's. */
export function actFields(
	place: { paper: string; page: number; rect: Field['rect'] },
	text: string,
	seal: string | null,
	size: number
): Field[] {
	const { paper, page, rect } = place;
	const side = seal ? Math.min(rect.height, rect.width / 4) : 0;
	const base = { person: EVERYBODY, paper, page, key: '' as const, required: false };
	return [
		{
			...base,
			id: ACT_FIELDS.text,
			kind: 'note',
			label: 'Notarial act',
			rect: { ...rect, width: rect.width - (side ? side + 10 : 0) },
			fontSize: size,
			settings: { text }
		},
		...(seal
			? [
					{
						...base,
						id: ACT_FIELDS.seal,
						kind: 'image' as const,
						label: 'Seal of the notary',
						rect: { x: rect.x + rect.width - side, y: rect.y + rect.height - side, width: side, height: side },
						settings: { picture: seal }
					}
				]
			: [])
	];
}

/** Whether the signature of whoever comes before this notary must be made in the session. */
export const isWatched = (plan: Plan): boolean => {
	const asked = notaryIn(plan)?.notary;
	return asked !== undefined && ACTS[asked.act].watched;
};
