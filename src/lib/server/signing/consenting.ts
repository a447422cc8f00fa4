import type { Duty, From, SentPacket } from '../../core/packet';
import { isRefusal, type Refusal } from '../../core/refusal';
import { consentLines, consentVersion } from '../../words/consent';
import type { House } from '../house';
import { sha256Text } from '../ids';
import { act } from '../packets/act';
import { unproved, type Visitor } from './visit';

/** What the record says was agreed to: language, version, and the SHA-256 of the text as it was shown. */
export function consentDigest(language: string, duty: Duty): string {
	return `${consentVersion(language, duty)} ${sha256Text(consentLines(language, duty).join('\n'))}`;
}

/** Records that it was opened, once. Called when the person goes on from the first view, not when a mail robot looks. */
export function openAndConsent(house: House, visitor: Visitor, from: From, language = 'en'): SentPacket | Refusal {
	const no = unproved(visitor);
	if (no) return no;
	const { packet, person } = visitor;
	const by = { kind: 'person', person: person.id } as const;
	const opened = act(house, packet.packet, by, { do: 'openPaper', person: person.id, from });
	if (isRefusal(opened)) return opened;
	return act(house, packet.packet, by, {
		do: 'consent',
		person: person.id,
		text: consentDigest(language, person.duty),
		from
	});
}
