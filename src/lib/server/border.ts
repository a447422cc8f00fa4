import type { Static, TSchema } from '@sinclair/typebox';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { refuse, type Refusal } from '../core/refusal';

const ajv = new Ajv2020({ allErrors: false, strict: true, discriminator: false, code: { optimize: true } });

/**
 * Makes a check for what comes from outside: every body, form and stored JSON crosses one, once.
 * Keys that would reach into prototypes are refused with everything else the schema does not name.
 */
export function border<S extends TSchema>(schema: S): (value: unknown) => Static<S> | Refusal {
	const ok = ajv.compile(schema);
	return (value) => {
		if (ok(value)) return value as Static<S>;
		const error = ok.errors?.[0];
		const at = error?.instancePath.replace(/^\//, '').replaceAll('/', '.') || undefined;
		return refuse('malformed', `${at ? `“${at}”` : 'What was sent'} ${error?.message ?? 'is not as it must be'}.`, at);
	};
}
