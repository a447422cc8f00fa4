import { cutText } from '../../core/clean-text';
import nodemailer from 'nodemailer';
import type { House } from '../house';
import { mailboxRefuses, putInMailbox } from './mailbox';

export interface Message {
	/** the same for every try at the same message, so that a receiver can tell a repeat */
	id: string;
	to: string;
	/** the one who writes and gets the answers; the sending address is Pellum's own */
	replyTo: { name: string; address: string };
	subject: string;
	text: string;
	html: string;
	attachments: { name: string; digest: string; media: string; bytes: Buffer }[];
}

/** Delivered; refused for good, with the reason; or not yet, with the reason, to be tried again. */
export type Delivery = { is: 'delivered' } | { is: 'refused'; why: string } | { is: 'later'; why: string };

/** Whether delivery is a row in the database, which can stand in the same transaction as what it belongs to. */
export function deliversInside(house: House): boolean {
	return house.config.smtp === null;
}

export function deliverInside(house: House, message: Message): Delivery {
	if (mailboxRefuses(house, message.to))
		return { is: 'refused', why: 'the Mailbox stand-in was told to refuse this address' };
	putInMailbox(house, message);
	return { is: 'delivered' };
}

/** How long one message may take on the whole, from connecting to the server's last word. */
const LIMIT_SECONDS = 60;

/** By SMTP (RFC 5321), with STARTTLS where the server offers it; smtps:// for TLS from the start. */
export async function deliverBySmtp(house: House, message: Message): Promise<Delivery> {
	const transport = nodemailer.createTransport(house.config.smtp!, {
		from: house.config.mailFrom
	});
	transport.set('connectionTimeout', 10_000);
	const limit = (house.config.mailSeconds ?? LIMIT_SECONDS) * 1000;
	try {
		await transport.sendMail({
			signal: AbortSignal.timeout(limit),
			messageId: `<${message.id}@pellum.invalid>`,
			to: message.to,
			replyTo: message.replyTo,
			subject: message.subject,
			text: message.text,
			html: message.html,
			attachments: message.attachments.map((a) => ({
				filename: a.name,
				content: a.bytes,
				contentType: a.media
			}))
		});
		return { is: 'delivered' };
	} catch (error) {
		const { responseCode, code, message } = error as { responseCode?: number; code?: string; message: string };
		const why = code === 'EABORT' ? `the mail server took longer than ${limit / 1000} s` : message;
		// 5yz is for good (RFC 5321 §4.2.1), but 530, 535 and 538 are about our own sign-in, which can be put right
		const forGood = responseCode !== undefined && responseCode >= 500 && ![530, 534, 535, 538].includes(responseCode);
		return { is: forGood ? 'refused' : 'later', why: cutText(why, 300) };
	} finally {
		transport.close();
	}
}
