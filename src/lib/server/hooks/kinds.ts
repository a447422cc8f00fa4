import type { PacketEvent } from '../../core/packet';

/** What other programs are told of, and the event each is. */
export const HOOK_KINDS = {
	'packet.sent': 'PacketSent',
	'packet.opened': 'PaperOpened',
	'person.finished': 'PersonFinished',
	'person.declined': 'PersonDeclined',
	'person.unreachable': 'MessageRefused',
	'person.held': 'PersonHeld',
	'packet.corrected': 'PlanCorrected',
	'packet.completed': 'PacketCompleted',
	'packet.sealed': 'EvidenceSealed',
	'packet.followed': 'FollowedUp',
	'packet.withdrawn': 'PacketWithdrawn',
	'packet.expired': 'PacketExpired'
} as const satisfies Record<string, PacketEvent['type']>;
export type HookKind = keyof typeof HOOK_KINDS;

export const KINDS_OF_HOOKS = Object.keys(HOOK_KINDS) as HookKind[];

const BY_EVENT = new Map<string, HookKind>(KINDS_OF_HOOKS.map((kind) => [HOOK_KINDS[kind], kind]));

/** What an event is told as; undefined where it is nobody's outside. */
export const kindOfEvent = (event: PacketEvent['type']): HookKind | undefined => BY_EVENT.get(event);
