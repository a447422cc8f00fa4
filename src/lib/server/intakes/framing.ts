import type { House } from '../house';
import { tokenHash } from '../ids';

/**
 * Whose pages may show a page in a frame: an intake's, or the signing page of a case that came of it; as the version in use says.
 * None for any other.
 */
export function framesFor(house: House, route: string | null, params: Partial<Record<string, string>>): string[] {
	const intake =
		route === '/i/[slug]' || route === '/i/[slug]/[token]'
			? house.db
					.prepare<[string], string>('SELECT id FROM intakes WHERE slug = ?')
					.pluck()
					.get(params['slug'] ?? '')
			: route === '/s/[token]'
				? house.db
						.prepare<[string], string>(
							'SELECT c.intake FROM links l JOIN cases c ON c.packet = l.packet WHERE l.token_hash = ?'
						)
						.pluck()
						.get(tokenHash(params['token'] ?? ''))
				: undefined;
	if (intake === undefined) return [];
	const frames = house.db
		.prepare<[string], string>(
			`SELECT v.setting ->> '$.frames' FROM intakes i JOIN intake_versions v ON v.intake = i.id AND v.version = i.version
			 WHERE i.id = ?`
		)
		.pluck()
		.get(intake);
	return frames === undefined ? [] : (JSON.parse(frames) as string[]);
}
