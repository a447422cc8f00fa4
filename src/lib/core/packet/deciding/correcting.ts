import { deadlineAfter, isoDay, isOver } from '../../calendar';
import { isRefusal, refuse } from '../../refusal';
import { actorsAt } from '../../route';
import type { Command } from '../commands';
import { changesOf, seenChanges, type SeenPart } from '../correcting/changes';
import { correctionFault } from '../correcting/fault';
import { groundOf, presentPlan, SHUT_MINUTES } from '../correcting/ground';
import type { PacketEvent } from '../events';
import { personIn, type Plan } from '../plan';
import { graveFault } from '../preflight';
import { addressOf, isShut, phoneOf, stillAt, type OpenPacket, type SentPacket } from '../state';
import { opening } from './finishing';
import { whileOpen, type Decided } from './turn';

/** Correcting a packet that is out: it is shut to signers, changed as on the Bench, and opens with the new plan. */

/** The record hears at most this often that a correction goes on. */
const NOTED_EVERY = 5 * 60_000;

const untilFrom = (now: string) => new Date(Date.parse(now) + SHUT_MINUTES * 60_000).toISOString();

/** Shuts it. Refuses while it is held, since somebody has to be judged first. */
export function beginCorrection(state: SentPacket, now: string): Decided {
	return whileOpen(state, (open): Decided => {
		if (open.status === 'held')
			return refuse('held', 'It is held. Decide first about the one who entered wrong codes, then put it right.');
		if (isOver(open.deadline, now)) return refuse('expired', 'Its time has run out. Make a new version.');
		const begun: PacketEvent = { type: 'CorrectionBegun', until: untilFrom(now) };
		if (isShut(open, now)) return [];
		return open.correcting ? [{ type: 'CorrectionLeft', why: 'time' }, begun] : [begun];
	});
}

/** A change was made: it stays shut for its time from now. */
export function goOnCorrecting(state: SentPacket, now: string): Decided {
	return whileCorrecting(state, now, ({ correcting }): Decided => {
		const noted = Date.parse(correcting.until) - SHUT_MINUTES * 60_000;
		return Date.parse(now) - noted < NOTED_EVERY ? [] : [{ type: 'CorrectionGoesOn', until: untilFrom(now) }];
	});
}

export function leaveCorrection(state: SentPacket): Decided {
	return whileOpen(state, (open) => (open.correcting ? [{ type: 'CorrectionLeft', why: 'left' }] : []));
}

/**
 * The corrected plan takes the place of the one that was out. Refuses what `correctionFault` and preflight refuse, and a
 * correction whose time has run out: by then the packet is open again, unchanged.
 */
export function correct(state: SentPacket, command: Extract<Command, { do: 'correct' }>, now: string): Decided {
	return whileCorrecting(state, now, (out) => {
		const { plan } = command;
		const no = correctionFault(groundOf(out, command.mayExchange), plan) ?? graveFault(plan);
		if (no) return no;
		const was = presentPlan(out);
		const changes = changesOf(was, plan);
		const reached = newAddresses(out, plan);
		if (changes.length === 0 && reached.length === 0) return [{ type: 'CorrectionLeft', why: 'left' }];
		const deadline = movedDeadline(out, command, now);
		if (isRefusal(deadline)) return deadline;
		const { waits, stop, opens } = goesOn(out, plan, now);
		return [
			{
				type: 'PlanCorrected',
				plan: command.planDigest,
				was: out.planDigest,
				changes,
				stop,
				waits,
				gone: was.people
					.filter((p) => !personIn(plan, p.id))
					.map((person) => ({
						person,
						heard: ['notified', 'opened', 'unreachable'].includes(out.people[person.id]?.is ?? '')
					})),
				toTell: toTell(out, was, plan)
			},
			...reached,
			...deadline,
			...opens
		];
	});
}

/** Runs `then` while it is shut for a correction. */
function whileCorrecting(
	state: SentPacket,
	now: string,
	then: (open: OpenPacket & { correcting: NonNullable<OpenPacket['correcting']> }) => Decided
): Decided {
	return whileOpen(state, (open) =>
		open.correcting && isShut(open, now)
			? then({ ...open, correcting: open.correcting })
			: refuse(
					'not-being-corrected',
					'It is open to signers again, unchanged, since nothing was changed here for a while. What you have is kept; go on putting it right to send it.'
				)
	);
}

/** People who have it, or will, at another address or number than before. */
function newAddresses(out: OpenPacket, plan: Plan): PacketEvent[] {
	return plan.people.flatMap(({ id, email, phone = '' }): PacketEvent[] => {
		if (!personIn(out.plan, id)) return [];
		const [mailed, called] = [addressOf(out, id), phoneOf(out, id)];
		return [
			...(mailed === email ? [] : [{ type: 'AddressCorrected', person: id, was: mailed, now: email } as const]),
			...(called === phone
				? []
				: [{ type: 'AddressCorrected', person: id, was: called, now: phone, channel: 'text' } as const])
		];
	});
}

/** Other days to complete count from the day it was sent; a deadline that was moved stays where the days are left alone. */
function movedDeadline(out: OpenPacket, { plan, holidays }: Extract<Command, { do: 'correct' }>, now: string): Decided {
	const days = (of: Plan) => `${of.days} ${of.sending?.workingDays === true}`;
	if (days(plan) === days(out.plan)) return [];
	const working = plan.sending?.workingDays ? [holidays ?? []] : [];
	const to = plan.days === null ? null : deadlineAfter(out.sentAt, plan.days, out.zone, ...working);
	if (isOver(to, now))
		return refuse('deadline-past', 'Counted from the day it was sent, that day has passed. Give it more days.', 'days');
	return out.deadline === to ? [] : [{ type: 'DeadlineMoved', was: out.deadline, now: to }];
}

/**
 * How the route goes on under the corrected plan: whoever has it at the stop that is now next keeps it, others get it, and
 * whose stop comes later waits again. A stop that has been opened is not decided a second time.
 */
function goesOn(out: OpenPacket, plan: Plan, now: string): { waits: string[]; stop: number; opens: PacketEvent[] } {
	const today = isoDay(out.zone, now);
	const had = stillAt(out).filter((id) => personIn(plan, id));
	const present = out.plan.stops[out.stop]?.id;
	const undecided = { ...plan, stops: plan.stops.map((s) => (s.id === present ? { ...s, when: undefined } : s)) };
	const answers = { ...out.answers, ...plan.answers };
	let after = plan.stops.findIndex((stop) => stop.id === lastBehind(out));
	for (;;) {
		const events = opening(undecided, after, answers, today).filter((event) => !isPast(out, event));
		const opens = events.find((event) => event.type === 'StopOpened');
		if (!opens) return { waits: [], stop: Math.max(after, 0), opens: events };
		const left = stillToAct(out, plan, opens);
		if (left.length === 0) {
			after = opens.stop;
			continue;
		}
		const people = left.filter((id) => !had.includes(id));
		const copies = (opens.copies ?? []).filter((id) => !personIn(out.plan, id));
		const opened: PacketEvent = { type: 'StopOpened', stop: opens.stop, people, ...(copies.length > 0 && { copies }) };
		return {
			waits: had.filter((id) => !left.includes(id)),
			stop: opens.stop,
			opens: [...events.filter((event) => event !== opens), ...(people.length > 0 ? [opened] : [])]
		};
	}
}

/** Who of a stop has still to act; nobody where one of a group has done it. */
function stillToAct(out: OpenPacket, plan: Plan, { stop, people }: { stop: number; people: string[] }): string[] {
	const is = (id: string) => out.people[id]?.is ?? 'waiting';
	if (plan.stops[stop]!.anyOne === true && people.some((id) => is(id) === 'done')) return [];
	return people.filter((id) => !['done', 'skipped', 'declined'].includes(is(id)));
}

/** The last stop before the present one at which anybody acts, by id; '' where there is none. */
function lastBehind(out: OpenPacket): string {
	for (let i = out.stop - 1; i >= 0; i--) if (actorsAt(out.plan, i).length > 0) return out.plan.stops[i]!.id;
	return '';
}

/** A stop that was left out before needs not be left out again. */
function isPast(out: OpenPacket, event: PacketEvent): boolean {
	return event.type === 'StopSkipped' && event.people.every((id) => out.people[id]?.is === 'skipped');
}

/** Who had opened it and finds something else now. */
function toTell(out: OpenPacket, was: Plan, plan: Plan): Record<string, SeenPart[]> {
	return Object.fromEntries(
		plan.people.flatMap(({ id }): [string, SeenPart[]][] => {
			if (out.people[id]?.is !== 'opened') return [];
			const parts = seenChanges(was, plan, id);
			return parts.length === 0 ? [] : [[id, parts]];
		})
	);
}

/** A person has been shown what was corrected since they opened it. */
export function noteShown(state: SentPacket, command: Extract<Command, { do: 'noteShown' }>): Decided {
	return whileOpen(state, (open) =>
		open.toTell[command.person] ? [{ type: 'CorrectionShown', person: command.person, from: command.from }] : []
	);
}
