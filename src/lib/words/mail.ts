import type { MessagePurpose } from '../core/packet';
import type { Duty } from '../core/packet';
import { dutyVerb } from '../core/route';

/** What a message has to say. All texts are plain; the letter escapes them for HTML itself. */
export interface MailFacts {
	purpose: MessagePurpose;
	to: { name: string; duty: Duty };
	sender: { name: string; email: string; organisation: string };
	title: string;
	reference: string;
	/** the sender's own subject; '' for Pellum's */
	subject: string;
	message: string;
	/** the day in words, or null */
	until: string | null;
	others: string[];
	link: string;
	/** why it ended, where it did */
	reason: string;
	/** organisation's colour, #rrggbb */
	colour: string;
}

export interface Letter {
	subject: string;
	text: string;
	html: string;
}

/** A short letter, as text and as HTML that says the same. */
export function letter(facts: MailFacts): Letter {
	const { subject, paragraphs, button } = content(facts);
	const hello = `Dear ${facts.to.name},`;
	const sign = [`${facts.sender.name}`, facts.sender.organisation];
	const foot = `${facts.reference} · Answer to ${facts.sender.name} at ${facts.sender.email}. This link is yours alone: please don't pass it on.`;
	const text = [hello, ...paragraphs, button ? `${button}:\n${facts.link}` : '', sign.join('\n'), `-- \n${foot}`]
		.filter(Boolean)
		.join('\n\n');
	const p = (inner: string) => `<p style="margin:0 0 16px">${inner}</p>`;
	const html = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(subject)}</title></head>
<body style="margin:0;padding:24px;font:16px/24px Georgia,serif;color:#20262B;background:#FFFEFA"><main style="max-width:36em">
<h1 style="margin:0 0 16px;font-size:18px;line-height:26px">${escape(subject)}</h1>
${[hello, ...paragraphs].map((t) => p(escape(t).replaceAll('\n', '<br>'))).join('\n')}
${button ? p(`<a href="${escape(facts.link)}" style="color:${facts.colour};font-weight:bold">${escape(button)}</a>`) : ''}
${p(sign.map(escape).join('<br>'))}
<p style="margin:24px 0 0;font-size:13px;line-height:20px;color:#5D646A">${escape(foot)}</p>
</main></body></html>`;
	return { subject, text, html };
}

function content(f: MailFacts): { subject: string; paragraphs: string[]; button: string | null } {
	const verb = dutyVerb(f.to.duty);
	const until = f.until ? ` Please do so by ${f.until}.` : '';
	const others = f.others.length > 0 ? `Also taking part: ${f.others.join(', ')}.` : '';
	switch (f.purpose) {
		case 'your turn':
			return {
				subject: f.subject || `To ${verb}: ${f.title}`,
				paragraphs: [
					`${f.sender.name} of ${f.sender.organisation} asks you to ${verb} “${f.title}”.${until}`,
					f.message,
					`You need no account. ${others}`.trim()
				],
				button: `Read and ${verb}`
			};
		case 'nudge':
			return {
				subject: `Still to ${verb}: ${f.title}`,
				paragraphs: [`“${f.title}” is waiting for you.${until}`, f.message],
				button: `Read and ${verb}`
			};
		case 'copies':
			return {
				subject: `Done: ${f.title}`,
				paragraphs: [
					`“${f.title}” is complete. The sealed copy and the evidence sheet are attached; the link shows them as well.`,
					'The seal shows any later change. Keep both files.'
				],
				button: 'See the copies'
			};
		case 'declined':
			return {
				subject: `Ended: ${f.title}`,
				paragraphs: [`“${f.title}” has ended. ${f.reason}`, 'There is nothing left for you to do.'],
				button: null
			};
		case 'withdrawn':
			return {
				subject: `Withdrawn: ${f.title}`,
				paragraphs: [
					`${f.sender.name} has withdrawn “${f.title}”.`,
					`The reason given: ${f.reason}`,
					'There is nothing left for you to do.'
				],
				button: null
			};
		case 'expired':
			return {
				subject: `Time ran out: ${f.title}`,
				paragraphs: [`The time for “${f.title}” has run out.`, 'Ask the sender if it is still wanted.'],
				button: null
			};
	}
}

function escape(text: string): string {
	return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}
