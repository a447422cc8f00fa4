import { isolated } from '../core/clean-text';
import type { Recorded } from '../core/packet';

/**
 * How somebody showed who they are, in the order in which they did, for the evidence sheet: in words, without pictures.
 * @returns '' where nothing was asked of them
 */
export function howShown(events: readonly Recorded[], person: string): string {
	let kind = '';
	const said = events.flatMap((event): string[] => {
		if (!('person' in event) || event.person !== person) return [];
		switch (event.type) {
			case 'CodeRight':
				return [
					`by a code ${event.way === 'code' ? 'that the sender told them' : event.way === 'mail' ? 'sent by mail' : 'sent by text message'}`
				];
			case 'IdentityHandedIn':
				kind = event.kind;
				return [];
			case 'IdentityJudged':
				return event.verdict === 'right'
					? [`by pictures of a document (${kind}), which the ID desk found to hold on ${event.at.slice(0, 10)}`]
					: [];
			case 'QuestionsAnswered':
				return event.enough
					? [`by answers to what the office knows, ${event.right} of ${event.of} right, on ${event.at.slice(0, 10)}`]
					: [];
			case 'IdentityKnown':
				return [`known from another packet, where they showed it on ${(event.shownAt ?? event.at).slice(0, 10)}`];
			case 'HoldReleased':
				return event.how === 'let through'
					? [`let through by ${event.by.kind === 'office' ? isolated(event.by.name) : 'the office'}, who judged`]
					: [];
			default:
				return [];
		}
	});
	return [...new Set(said)].join('; ');
}
