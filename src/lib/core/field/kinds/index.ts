import type { FieldKind } from '../kind';
import { attachment } from './attachment';
import { choice } from './choice';
import { computed } from './computed';
import { date } from './date';
import { email } from './email';
import { image } from './image';
import { initials } from './initials';
import { jobTitle } from './job-title';
import { name } from './name';
import { note } from './note';
import { number } from './number';
import { organisation } from './organisation';
import { pickOne } from './pick-one';
import { signature } from './signature';
import { signingDate } from './signing-date';
import { strike } from './strike';
import { text } from './text';
import { ticks } from './ticks';

/** Every kind there is, in the order of the tray. */
export const KINDS: readonly FieldKind[] = [
	signature,
	initials,
	signingDate,
	name,
	email,
	organisation,
	jobTitle,
	text,
	number,
	date,
	choice,
	pickOne,
	ticks,
	attachment,
	computed,
	note,
	image,
	strike
];

const byName = new Map(KINDS.map((kind) => [kind.kind as string, kind]));

/** The kind of that name. A plan that crossed the border names only kinds that exist. */
export function kindOf(name: string): FieldKind {
	const kind = byName.get(name);
	if (!kind) throw new Error(`no kind of field is called ${name}`);
	return kind;
}

/** Whether somebody must be named for a field: it is asked of them, or filled in when they finish. */
export function asksSomebody(field: { kind: string }): boolean {
	const { filledBy } = kindOf(field.kind);
	return filledBy === 'person' || filledBy === 'finishing';
}
