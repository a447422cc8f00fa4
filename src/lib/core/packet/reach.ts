import type { DeliveryWay, PlanPerson } from './plan';
import type { Channel } from './state';

/** The ways by which a person is to be reached. */
export function channelsOf(way: DeliveryWay | undefined): Channel[] {
	switch (way ?? 'mail') {
		case 'mail':
			return ['mail'];
		case 'mail and text':
			return ['mail', 'text'];
		case 'text':
			return ['text'];
		default:
			return [];
	}
}

/** Whether a mail must be able to reach them: a message, or a code. */
export function isMailed(person: PlanPerson): boolean {
	return channelsOf(person.deliver).includes('mail') || person.check?.by === 'mail';
}

/** Whether a text message must be able to reach them. */
export function isTexted(person: PlanPerson): boolean {
	return channelsOf(person.deliver).includes('text') || person.check?.by === 'text';
}
