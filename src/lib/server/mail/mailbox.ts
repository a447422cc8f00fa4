import type { House } from '../house';
import { readSetting, writeSetting } from '../settings';
import type { Message } from './index';

/** The Mailbox stand-in: keeps every message instead of sending it. */
export interface KeptMessage {
	id: number;
	at: string;
	recipient: string;
	sender: string;
	subject: string;
	text: string;
	html: string;
	attachments: { name: string; digest: string }[];
}

/** Keeps a message; the same message a second time is the same one. */
export function putInMailbox(house: House, message: Message): void {
	house.db
		.prepare(
			`INSERT OR IGNORE INTO mailbox (message_id, at, recipient, sender, subject, text, html, attachments) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`
		)
		.run(
			message.id,
			house.now().toISOString(),
			message.to,
			message.replyTo.name,
			message.subject,
			message.text,
			message.html,
			JSON.stringify(message.attachments.map(({ name, digest }) => ({ name, digest })))
		);
}

/** Newest first; `to` keeps to one recipient. */
export function mailboxMessages(
	house: House,
	to: string,
	before = Number.MAX_SAFE_INTEGER,
	most = 50
): Omit<KeptMessage, 'html' | 'text'>[] {
	const rows = house.db
		.prepare<unknown[], Omit<KeptMessage, 'attachments'> & { attachments: string }>(
			`SELECT id, at, recipient, sender, subject, attachments FROM mailbox WHERE id < ? ${to ? 'AND recipient = ?' : ''} ORDER BY id DESC LIMIT ?`
		)
		.all(...(to ? [before, to, most] : [before, most]));
	return rows.map((row) => ({ ...row, attachments: JSON.parse(row.attachments) as KeptMessage['attachments'] }));
}

export function mailboxMessage(house: House, id: number): KeptMessage | null {
	const row = house.db
		.prepare<[number], Omit<KeptMessage, 'attachments'> & { attachments: string }>(
			'SELECT id, at, recipient, sender, subject, text, html, attachments FROM mailbox WHERE id = ?'
		)
		.get(id);
	return row ? { ...row, attachments: JSON.parse(row.attachments) as KeptMessage['attachments'] } : null;
}

/** Addresses whose messages come back. */
export function refusedAddresses(house: House): string[] {
	return JSON.parse(readSetting(house.db, 'mailbox-refuses') ?? '[]') as string[];
}

export function setRefusedAddresses(house: House, addresses: string[]): void {
	writeSetting(
		house.db,
		'mailbox-refuses',
		JSON.stringify([...new Set(addresses.map((a) => a.trim().toLowerCase()).filter(Boolean))].slice(0, 100))
	);
}

export function mailboxRefuses(house: House, address: string): boolean {
	return refusedAddresses(house).includes(address.toLowerCase());
}
