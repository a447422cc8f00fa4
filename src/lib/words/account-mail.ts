import { written, type Letter } from './mail';

/** Letters about an account; whoever has one reads the office's English. */
export interface AccountFacts {
	purpose: 'invitation' | 'reset' | 'changed';
	to: string;
	office: string;
	/** how long the link holds */
	hours: number;
	link: string;
	colour: string;
}

export function accountLetter(f: AccountFacts): Letter {
	const { subject, paragraphs, button } = content(f);
	return written(
		{
			subject,
			hello: `Dear ${f.to},`,
			paragraphs,
			button: { text: button, link: f.link },
			sign: ['Pellum'],
			foot: f.office,
			colour: f.colour
		},
		{ language: 'en', direction: 'ltr' }
	);
}

function content({ purpose, office, hours }: AccountFacts): { subject: string; paragraphs: string[]; button: string } {
	const holds = hours >= 48 ? `${hours / 24} days` : hours === 1 ? 'an hour' : `${hours} hours`;
	switch (purpose) {
		case 'invitation':
			return {
				subject: `Your account with ${office}`,
				paragraphs: [
					`${office} prepares and keeps its agreements with Pellum, and has made an account for you.`,
					`Choose a password, and you can sign in. The link holds for ${holds}.`
				],
				button: 'Choose a password'
			};
		case 'reset':
			return {
				subject: 'A new password',
				paragraphs: [
					`Somebody, most likely you, has asked for a new password for your account with ${office}.`,
					`The link holds for ${holds}. If it wasn't you, do nothing: your password stays as it is.`
				],
				button: 'Choose a new password'
			};
		case 'changed':
			return {
				subject: 'Your password has been changed',
				paragraphs: [
					`The password of your account with ${office} has just been changed, and you were signed out everywhere else.`,
					"If it wasn't you, choose a new one at once and tell whoever runs Pellum in your office."
				],
				button: 'It was not me'
			};
	}
}
