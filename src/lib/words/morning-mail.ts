import type { Need } from '../core/packet';
import { written, type Letter } from './mail';

/** What needs somebody of the office, as a letter in the morning. Whoever has one reads the office's English. */
export interface MorningFacts {
	to: string;
	office: string;
	needs: readonly Need[];
	/** a day in words */
	day: (at: string) => string;
	link: string;
	colour: string;
}

/** So many are told one by one; the Desk has the rest. */
const MOST = 12;

/** @returns null where nothing needs them: then nothing is written */
export function morningLetter({ to, office, needs, day, link, colour }: MorningFacts): Letter | null {
	const said = needs.flatMap((need) => needInWords(need, day) ?? []);
	if (said.length === 0) return null;
	const rest = said.length - MOST;
	return written(
		{
			subject: said.length === 1 ? 'One thing needs you' : `${said.length} things need you`,
			hello: `Dear ${to},`,
			paragraphs: [...said.slice(0, MOST), ...(rest > 0 ? [`And ${rest} more, on the Desk.`] : [])],
			button: { text: 'To the Desk', link },
			sign: ['Pellum'],
			foot: `${office}. You asked for this letter; on your account’s page it can be ended.`,
			colour
		},
		{ language: 'en', direction: 'ltr' }
	);
}

/** null: it can wait until they come to the Desk. */
function needInWords(need: Need, day: MorningFacts['day']): string | null {
	switch (need.what) {
		case 'late':
			return `“${need.title}”, with ${need.names}, ${need.middle ? 'will likely' : 'may'} not be done by ${day(need.deadline)}.${need.helps ? ` ${need.helps}` : ''}`;
		case 'ending':
			return `“${need.title}” ends ${day(need.deadline)}; ${need.names} has it.`;
		case 'unreachable':
			return `A message to ${need.name} about “${need.title}” came back.`;
		case 'held':
			return `${need.name} could not show who they are; “${need.title}” is held.`;
		case 'paper':
			return `${need.name} brought “${need.title}” back on paper.`;
		case 'wording':
			return `${need.name} asks for another wording in “${need.title}”.`;
		case 'turn':
			return `Your part: “${need.title}”.`;
		case 'declined':
			return `“${need.title}” was declined ${day(need.at)}.`;
		case 'term':
			return `The agreement “${need.title}” runs out ${day(`${need.ends}T12:00:00Z`)}.`;
		case 'aside':
		case 'lane':
		case 'jobs':
		case 'clock':
			return 'Some of Pellum’s own work stands still; the Desk says which.';
		case 'sheet':
			return `“${need.name}” stands open, and something came that can’t go by itself.`;
		case 'draft':
			return need.fault ? `“${need.title}” did not go at its time: ${need.fault}` : null;
	}
}
