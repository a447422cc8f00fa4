import type { TSchema } from '@sinclair/typebox';
import { isFile, type Operation } from './operation';
import { GROUPS } from './operations';
import { RIGHT_SAYS, RIGHTS } from './rights';
import { NAMED } from './schemas';
import { Problem } from './shapes';

/** The API as OpenAPI 3.1 describes it, from the schemas that check what comes in. */

type Json = Record<string, unknown>;

/** A schema as the description has it: what has a name stands once, and our own word `line` is left out. */
function described(schema: unknown, whole = false): unknown {
	if (Array.isArray(schema)) return schema.map((one) => described(one));
	if (typeof schema !== 'object' || schema === null) return schema;
	const { title } = schema as TSchema;
	if (!whole && title && NAMED[title] === schema) return { $ref: `#/components/schemas/${title}` };
	return Object.fromEntries(
		Object.entries(schema)
			.filter(([name, value]) => name !== 'line' || value !== true)
			.map(([name, value]) => [name, described(value)])
	);
}

const json = (schema: unknown): Json => ({ 'application/json': { schema: described(schema) } });
const bytes = (medias: string[]): Json =>
	Object.fromEntries(medias.map((media) => [media, { schema: { type: 'string', format: 'binary' } }]));

const LIMITS = { RateLimit: { $ref: '#/components/headers/RateLimit' } };

function operationOf(op: Operation, group: string): Json {
	const parts = [...op.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
		name,
		in: 'path',
		required: true,
		schema: { type: 'string' }
	}));
	const required = new Set<string>(op.query?.required ?? []);
	const query = Object.entries(op.query?.properties ?? {}).map(([name, schema]) => ({
		name,
		in: 'query',
		required: required.has(name),
		schema: described(schema)
	}));
	const heads = [
		...(op.method === 'get' ? [] : [{ $ref: '#/components/parameters/IdempotencyKey' }]),
		...(op.revised && op.method === 'put' ? [{ $ref: '#/components/parameters/IfMatch' }] : [])
	];
	const content = op.body ? json(op.body) : op.file ? bytes(op.file.takes) : null;
	return {
		operationId: `${op.method} ${op.path}`.replaceAll(/[^a-z]+([a-z])?/gi, (_, letter: string = '') =>
			letter.toUpperCase()
		),
		tags: [group],
		summary: op.does,
		description: `${op.more ? `${op.more}\n\n` : ''}Wants the right to ${op.right}.`,
		parameters: [...parts, ...query, ...heads],
		...(content && { requestBody: { required: true, content } }),
		responses: {
			[op.status ?? 200]: {
				description: 'Done',
				headers: { ...LIMITS, ...(op.revised && { ETag: { schema: { type: 'string' } } }) },
				content: isFile(op.gives) ? bytes(op.gives.file) : json(op.gives)
			},
			default: {
				description: 'A problem, as RFC 9457 tells one',
				headers: LIMITS,
				content: { 'application/problem+json': { schema: described(Problem) } }
			}
		}
	};
}

/** @param origin the public address of this Pellum */
export function description(origin: string, version: string): Json {
	const paths: Record<string, Json> = {};
	for (const [group, operations] of Object.entries(GROUPS))
		for (const op of operations) (paths[op.path] ??= {})[op.method] = operationOf(op, group);
	return {
		openapi: '3.1.0',
		info: {
			title: 'Pellum',
			version,
			summary: 'Agreements prepared, sent, followed and taken out by other programs',
			description: `Make a key under your account; it may ${RIGHTS.map((right) => `**${right}** (${RIGHT_SAYS[right]})`).join(', ')}. Times are ISO 8601 in UTC, ids as in the addresses of pages. What changes something takes an Idempotency-Key: the same asked again is done once. Lists come in pages: ask on with \`next\` as \`after\`.`
		},
		servers: [{ url: `${origin}/api/v1` }],
		security: [{ key: [] }],
		tags: Object.keys(GROUPS).map((name) => ({ name })),
		paths,
		components: {
			securitySchemes: { key: { type: 'http', scheme: 'bearer', description: 'an API key of an account' } },
			parameters: {
				IdempotencyKey: {
					name: 'Idempotency-Key',
					in: 'header',
					schema: { type: 'string', maxLength: 200 },
					description: 'a new one for each thing to be done; asked again within a day it is done once'
				},
				IfMatch: {
					name: 'If-Match',
					in: 'header',
					required: true,
					schema: { type: 'string' },
					description: 'the ETag read'
				}
			},
			headers: {
				RateLimit: {
					schema: { type: 'string' },
					description: 'how many more in this minute (r), and when it is over (t)'
				}
			},
			schemas: Object.fromEntries(Object.entries(NAMED).map(([name, schema]) => [name, described(schema, true)]))
		}
	};
}
