import { Type, type TSchema } from '@sinclair/typebox';

/** What the shapes of the API are made of. */

/** Shapes that the description gives a name. */
export const NAMED: Record<string, TSchema> = {};

export function named<S extends TSchema>(name: string, schema: S): S {
	schema.title = name;
	NAMED[name] = schema;
	return schema;
}

export const oneOf = <T extends string>(names: readonly T[], more: object = {}) =>
	Type.Union(
		names.map((name) => Type.Literal(name)),
		more
	);
export const orNull = <S extends TSchema>(schema: S) => Type.Union([schema, Type.Null()]);
export const strict = { additionalProperties: false } as const;

export const Moment = Type.String({ description: 'ISO 8601, UTC', examples: ['2026-11-29T08:00:00.000Z'] });
export const Id = Type.String({ pattern: '^[0-9a-z]{23}$' });
export const Digest = Type.String({ pattern: '^[0-9a-f]{64}$', description: 'SHA-256 in hexadecimal' });
export const Day = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$', examples: ['2026-12-24'] });

/** Where a page of a list is to go on. */
export const After = Type.Optional(
	Type.String({ maxLength: 400, description: 'the `next` of the page before; without it, from the beginning' })
);
export const pageOf = <S extends TSchema>(of: S) =>
	Type.Object({ items: Type.Array(of), next: orNull(Type.String()) }, strict);
