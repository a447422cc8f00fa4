import type { Field } from '../../core/packet';

/** Fetches the checks with large tables, where one of these fields has use for them. */
export function wantCheckers(fields: Field[]): void {
	if (fields.some((f) => f.settings['pattern'] === 'phone' || f.settings['pattern'] === 'own'))
		void import('../../core/field/formats/all-checkers').then((all) => all.provideAll());
}
