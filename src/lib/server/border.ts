import type { Static, TSchema } from '@sinclair/typebox';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import { cleanText, oneLine } from '../core/clean-text';
import { refuse, type Refusal } from '../core/refusal';

const ajv = new Ajv2020({ allErrors: false, strict: true, discriminator: false, code: { optimize: true } });

/** `line`: the text is made one line, in place (core/schema). */
ajv.addKeyword({
	keyword: 'line',
	type: 'string',
	schemaType: 'boolean',
	modifying: true,
	validate: (
		_line: boolean,
		text: string,
		_schema?: unknown,
		at?: { parentData: unknown; parentDataProperty: unknown }
	) => {
		const parent = at?.parentData as Record<string, unknown> | undefined;
		if (parent && /[\n\t]/.test(text)) parent[at!.parentDataProperty as string] = oneLine(text);
		return true;
	}
});

/**
 * Makes a check for what comes from outside: every body, form and stored JSON crosses one, once.
 * Keys that would reach into prototypes are refused with everything else the schema does not name. Texts are made clean
 * first: well-formed Unicode, without control characters, of one line where the schema says so.
 */
export function border<S extends TSchema>(schema: S): (value: unknown) => Static<S> | Refusal {
	// made when it is first asked: all of them together are a seventh of a start
	let ok: ValidateFunction | undefined;
	return (given) => {
		ok ??= ajv.compile(schema);
		const value = cleanTexts(given);
		if (ok(value)) return value as Static<S>;
		const error = ok.errors?.[0];
		const at = error?.instancePath.replace(/^\//, '').replaceAll('/', '.') || undefined;
		return refuse('malformed', `${at ? `“${at}”` : 'What was sent'} ${error?.message ?? 'is not as it must be'}.`, at);
	};
}

/** A value with all its texts clean; what has nothing to clean is the same value. */
function cleanTexts(value: unknown): unknown {
	if (typeof value === 'string') return cleanText(value);
	if (typeof value !== 'object' || value === null) return value;
	for (const key of Object.keys(value)) {
		const inner = (value as Record<string, unknown>)[key];
		const clean = cleanTexts(inner);
		if (clean !== inner) (value as Record<string, unknown>)[key] = clean;
	}
	return value;
}
