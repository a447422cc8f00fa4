import { written, type Letter } from './mail';

/** What the sender is told by mail; they read the office's English. */
export interface OfficeFacts {
	purpose: 'handed over' | 'wording' | 'held' | 'paper back' | 'ending' | 'term ending';
	to: string;
	title: string;
	reference: string;
	/** whom it is about */
	name: string;
	/** to whom, for a hand-over */
	other: string;
	/** the reason or the wish, in that person's words */
	words: string;
	/** the day in words */
	day: string;
	link: string;
	colour: string;
}

export function officeLetter(f: OfficeFacts): Letter {
	const { subject, paragraphs } = content(f);
	return written(
		{
			subject,
			hello: `Dear ${f.to},`,
			paragraphs,
			button: { text: 'Look at it', link: f.link },
			sign: ['Pellum'],
			foot: f.reference,
			colour: f.colour
		},
		{ language: 'en', direction: 'ltr' }
	);
}

function content({ purpose, title, name, other, words, day }: OfficeFacts): { subject: string; paragraphs: string[] } {
	switch (purpose) {
		case 'handed over':
			return {
				subject: `Handed over: ${title}`,
				paragraphs: [`${name} has handed their part of “${title}” over to ${other}.`, `The reason given: ${words}`]
			};
		case 'wording':
			return {
				subject: `Another wording wanted: ${title}`,
				paragraphs: [
					`${name} asks for another wording in “${title}”:`,
					words,
					'Answer them, or withdraw it and make a new version.'
				]
			};
		case 'held':
			return {
				subject: `Held: ${title}`,
				paragraphs: [
					`“${title}” is held: ${words || `${name} has entered a wrong code as often as is allowed.`}`,
					'Nobody can go on until somebody has looked at it, or you withdraw it.'
				]
			};
		case 'paper back':
			return {
				subject: `Back on paper: ${title}`,
				paragraphs: [
					`What ${name} signed on paper in “${title}” has come back, and was held against what went out.`,
					words
				]
			};
		case 'ending':
			return {
				subject: `Ends on ${day}: ${title}`,
				paragraphs: [`“${title}” ends on ${day}, and is still with ${name}.`]
			};
		case 'term ending':
			return {
				subject: `Runs out on ${day}: ${title}`,
				paragraphs: [`The agreement “${title}” runs out on ${day}. Renew it if it is still wanted.`]
			};
	}
}
