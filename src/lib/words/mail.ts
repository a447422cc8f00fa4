import type { DoubtFound, Duty, MessagePurpose } from '../core/packet';
import type { WordKey, Words } from './words';

/** What a message to somebody taking part has to say. All texts are plain; the letter escapes them for HTML itself. */
export interface MailFacts {
	purpose: MessagePurpose;
	to: { name: string; duty: Duty };
	sender: { name: string; email: string; organisation: string };
	title: string;
	reference: string;
	/** the sender's own subject; '' for Pellum's */
	subject: string;
	message: string;
	/** what only this person reads */
	note: string;
	/** the day in words, or null */
	until: string | null;
	others: string[];
	link: string;
	/** who ended it, and why, where somebody did */
	ended: { name: string; reason: string };
	/** the code, in a message that brings one */
	code?: { code: string; minutes: number };
	/** what the office says to them: to their wish for another wording, or to what they showed of themselves */
	say?: string;
	/** pages (from 0) that are wanted again on paper, why, and the office's word */
	again?: { pages: number[]; doubts: DoubtFound[]; word: string };
	/** of a session before a notary, in words */
	appointment?: { when: string; minutes: number; notary: string; fee: string };
	/** organisation's colour, #rrggbb */
	colour: string;
}

export interface Letter {
	subject: string;
	text: string;
	html: string;
}

/** A short letter in the person's language, as text and as HTML that says the same. */
export function letter(facts: MailFacts, words: Words): Letter {
	const { subject, paragraphs, button } = content(facts, words);
	return written(
		{
			subject,
			hello: words('mail.dear', { name: facts.to.name }),
			paragraphs,
			button: button ? { text: button, link: facts.link } : null,
			sign: [facts.sender.name, facts.sender.organisation],
			foot: words('mail.foot', {
				reference: facts.reference,
				sender: facts.sender.name,
				address: facts.sender.email
			}),
			colour: facts.colour
		},
		words
	);
}

interface Parts {
	subject: string;
	hello: string;
	paragraphs: string[];
	button: { text: string; link: string } | null;
	sign: string[];
	foot: string;
	colour: string;
}

/** The parts of a letter as text and HTML. */
export function written(parts: Parts, { language, direction }: Pick<Words, 'language' | 'direction'>): Letter {
	const { subject, hello, button, sign, foot, colour } = parts;
	const paragraphs = parts.paragraphs.filter(Boolean);
	// a line that begins with a Latin name would be laid out the wrong way round in a plain text (UAX #9, P2)
	const line = (said: string) => (direction === 'rtl' && said ? `\u200f${said}` : said);
	const text = [
		line(hello),
		...paragraphs.map(line),
		button ? `${line(button.text)}:\n${button.link}` : '',
		sign.join('\n'),
		`-- \n${line(foot)}`
	]
		.filter(Boolean)
		.join('\n\n');
	const p = (inner: string) => `<p style="margin:0 0 16px">${inner}</p>`;
	const html = `<!doctype html><html lang="${language}" dir="${direction}"><head><meta charset="utf-8"><title>${escape(subject)}</title></head>
<body style="margin:0;padding:24px;font:16px/24px Georgia,serif;color:#20262B;background:#FFFEFA"><main style="max-width:36em">
<h1 style="margin:0 0 16px;font-size:18px;line-height:26px">${escape(subject)}</h1>
${[hello, ...paragraphs].map((t) => p(escape(t).replaceAll('\n', '<br>'))).join('\n')}
${button ? p(`<a href="${escape(button.link)}" style="color:${colour};font-weight:bold">${escape(button.text)}</a>`) : ''}
${p(sign.map(escape).join('<br>'))}
<p style="margin:24px 0 0;font-size:13px;line-height:20px;color:#5D646A">${escape(foot)}</p>
</main></body></html>`;
	return { subject, text, html };
}

function content(f: MailFacts, w: Words): { subject: string; paragraphs: string[]; button: string | null } {
	const { title, to } = f;
	const duty = to.duty === 'gets a copy' ? 'approves' : to.duty;
	const byDuty = (what: 'asks' | 'subject' | 'open') => `mail.${what}.${duty}` as WordKey;
	const until = f.until ? w('mail.until', { until: f.until }) : '';
	const open = w(byDuty('open'));
	const nothing = w('mail.nothing left');
	switch (f.purpose) {
		case 'your turn':
			return {
				subject: f.subject || w(byDuty('subject'), { title }),
				paragraphs: [
					w.joined([w(byDuty('asks'), { sender: f.sender.name, organisation: f.sender.organisation, title }), until]),
					f.message,
					f.note,
					f.say ?? '',
					w.joined([w('mail.account'), f.others.length > 0 ? w('mail.others', { names: w.list(f.others) }) : ''])
				],
				button: open
			};
		case 'nudge':
		case 'reminder':
			return {
				subject: w('mail.still.subject', { title }),
				paragraphs: [w.joined([w('mail.still', { title }), until]), f.message],
				button: open
			};
		case 'ending':
			return {
				subject: w('mail.ending.subject', { title, until: f.until ?? '' }),
				paragraphs: [w('mail.ending', { title, until: f.until ?? '' }), f.message],
				button: open
			};
		case 'code':
			return {
				subject: w('mail.code.subject', { title }),
				paragraphs: [w('mail.code', { code: f.code?.code ?? '', minutes: f.code?.minutes ?? 0 })],
				button: null
			};
		case 'state so far':
			return {
				subject: w('mail.so far.subject', { title }),
				paragraphs: [w('mail.so far', { title }), f.message],
				button: w('mail.so far.open')
			};
		case 'spared':
			return {
				subject: w('mail.spared.subject', { title }),
				paragraphs: [w('mail.spared', { title }), nothing],
				button: null
			};
		case 'let go':
			return {
				subject: w('mail.spared.subject', { title }),
				paragraphs: [w('mail.let go', { title }), nothing],
				button: null
			};
		case 'wording answered':
			return {
				subject: w('mail.wording.subject', { title }),
				paragraphs: [w('mail.wording', { say: f.say ?? '' }), until],
				button: open
			};
		case 'declined':
			return {
				subject: w('mail.declined.subject', { title }),
				// where the office ended it for its own reasons, nobody's name is told
				paragraphs:
					f.ended.name === '' ? [w('text.ended', { title })] : [w('mail.declined', { title, ...f.ended }), nothing],
				button: null
			};
		case 'paper again':
			return {
				subject: w('mail.paper again.subject', { title }),
				paragraphs: [w('mail.paper again', { title, pages: pagesOf(f) }), reasons(f, w), f.again?.word ?? ''],
				button: open
			};
		case 'paper refused':
			return {
				subject: w('mail.paper refused.subject', { title }),
				paragraphs: [w('mail.paper refused', { title }), f.say ?? ''],
				button: open
			};
		case 'appointment':
			return {
				subject: w('mail.appointment.subject', { title }),
				paragraphs: [w('mail.appointment', { title, ...at(f) }), f.appointment?.fee ? w('notary.fee', at(f)) : ''],
				button: open
			};
		case 'being looked at':
			return { subject: `${w('held.title')}: ${title}`, paragraphs: [w('held.text')], button: null };
		case 'withdrawn':
			return {
				subject: w('mail.withdrawn.subject', { title }),
				paragraphs: [w('mail.withdrawn', { title }), w('mail.reason', { reason: f.ended.reason }), nothing],
				button: null
			};
		case 'expired':
			return {
				subject: w('mail.expired.subject', { title }),
				paragraphs: [w('mail.expired', { title }), w('mail.expired.ask')],
				button: null
			};
		// 'copies', and what only the office gets, which has letters of its own
		default:
			return {
				subject: w('mail.copies.subject', { title }),
				paragraphs: [w('mail.copies', { title }), w('mail.copies.seal')],
				button: w('mail.copies.open')
			};
	}
}

const at = ({ appointment }: MailFacts) => appointment ?? { when: '', minutes: 0, notary: '', fee: '' };

const pagesOf = ({ again }: MailFacts): string => (again?.pages ?? []).map((page) => page + 1).join(', ');

/** Why pages are wanted again: of those that are, and of what belongs to none; each reason once. */
function reasons({ again }: MailFacts, w: Words): string {
	const wanted = (again?.doubts ?? []).filter(({ page }) => page === null || again!.pages.includes(page));
	return [
		...new Set(wanted.map(({ what, page }) => w(`mail.doubt.${what}` as WordKey, { page: (page ?? 0) + 1 })))
	].join(' ');
}

/** The same by text message: one line with the link. */
export function textMessage(f: MailFacts, w: Words): string {
	return w.direction === 'rtl' ? `\u200f${inOneLine(f, w)}` : inOneLine(f, w);
}

function inOneLine(f: MailFacts, w: Words): string {
	const { title, link } = f;
	switch (f.purpose) {
		case 'appointment':
			return w('text.appointment', { title, link, ...at(f) });
		case 'being looked at':
			return `${title}: ${w('held.text')}`;
		case 'paper again':
			return `${w('mail.paper again', { title, pages: pagesOf(f) })} ${link}`;
		case 'paper refused':
			return `${w('mail.paper refused', { title })} ${link}`;
		case 'your turn':
		case 'nudge':
		case 'reminder':
		case 'wording answered':
			return w('text.turn', { sender: f.sender.name, organisation: f.sender.organisation, title, link });
		case 'ending':
			return w('text.ending', { title, until: f.until ?? '', link });
		case 'code':
			return w('text.code', { title, code: f.code?.code ?? '' });
		case 'state so far':
			return w('text.so far', { title, link });
		case 'copies':
			return w('text.copies', { title, link });
		case 'spared':
		case 'let go':
			return w('text.spared', { title });
		default:
			return w('text.ended', { title });
	}
}

function escape(text: string): string {
	return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}
