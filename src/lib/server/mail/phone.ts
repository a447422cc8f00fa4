import type { House } from '../house';
import { readSetting, writeSetting } from '../settings';

/** The Phone stand-in: keeps every text message instead of sending it. */
export interface KeptText {
	id: number;
	at: string;
	recipient: string;
	text: string;
}

/** Digits and a plus only, so that one number is one number however it is written. */
export function bareNumber(phone: string): string {
	return phone.replaceAll(/[^\d+]/g, '');
}

/** Keeps a text message; the same one a second time is the same one. */
export function putInPhone(house: House, message: { id: string; to: string; text: string }): void {
	house.db
		.prepare('INSERT OR IGNORE INTO phone (message_id, at, recipient, text) VALUES (?, ?, ?, ?)')
		.run(message.id, house.now().toISOString(), bareNumber(message.to), message.text);
}

/** Newest first; `to` keeps to one number. */
export function phoneMessages(house: House, to: string, most = 50): KeptText[] {
	const number = bareNumber(to);
	return house.db
		.prepare<unknown[], KeptText>(
			`SELECT id, at, recipient, text FROM phone ${number ? 'WHERE recipient = ?' : ''} ORDER BY id DESC LIMIT ?`
		)
		.all(...(number ? [number, most] : [most]));
}

/** Numbers whose messages come back. */
export function refusedNumbers(house: House): string[] {
	return JSON.parse(readSetting(house.db, 'phone-refuses') ?? '[]') as string[];
}

export function setRefusedNumbers(house: House, numbers: string[]): void {
	const bare = [...new Set(numbers.map(bareNumber).filter(Boolean))].slice(0, 100);
	writeSetting(house.db, 'phone-refuses', JSON.stringify(bare));
}

export function phoneRefuses(house: House, number: string): boolean {
	return refusedNumbers(house).includes(bareNumber(number));
}
