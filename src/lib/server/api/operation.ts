import type { Static, TObject, TSchema } from '@sinclair/typebox';
import type { Doing } from '../../core/access';
import type { Refusal } from '../../core/refusal';
import type { Kind } from '../access';
import type { Account } from '../accounts';
import type { House } from '../house';
import type { Right } from './rights';

/** What somebody asks for by the API, once its shape has been checked. */
export interface Call<Q = unknown, B = unknown> {
	house: House;
	/** with the key's name, so that whatever is recorded has it */
	account: Account & { key: string };
	/** parts of the address, by the names in the operation's path */
	part: Record<string, string>;
	query: Q;
	body: B;
	/** the revision that the caller has read (RFC 9110 §13.1.1); null where they did not say */
	revision: number | null;
}

/** A file as an answer. */
export class FileAnswer {
	constructor(
		readonly bytes: Uint8Array,
		readonly media: string,
		readonly name: string
	) {}
}

/** An answer that has a revision, told as its ETag. */
export class Revised<T> {
	constructor(
		readonly value: T,
		readonly revision: number
	) {}
}

export type Method = 'get' | 'post' | 'put' | 'delete';

interface Shape<Q extends TObject, B extends TSchema, G extends TSchema> {
	method: Method;
	/** below /api/v1, with parts in braces */
	path: string;
	right: Right;
	/** what the address names, which the table of access is asked about: by its part's name, the kind, and what is wanted of it */
	of?: { part: string; kind: Kind; doing: Doing };
	/** one line: what it does */
	does: string;
	more?: string;
	query?: Q;
	/** the schema of a JSON body, or the media types of a file */
	body?: B;
	file?: { most: number; takes: string[] };
	/** the schema of what is answered, or the media types of a file */
	gives: G | { file: string[] };
	/** of what is answered; 200 where nothing is made */
	status?: 200 | 201 | 202;
	/** it has revisions: told as ETag, wanted as If-Match */
	revised?: true;
	do: (
		call: Call<Static<Q>, TSchema extends B ? Uint8Array : Static<B>>
	) =>
		| Static<G>
		| FileAnswer
		| Revised<Static<G>>
		| Refusal
		| Promise<Static<G> | FileAnswer | Revised<Static<G>> | Refusal>;
}

/** One thing that can be asked for, as the dispatcher and the description read it. */
export type Operation = Omit<Shape<TObject, TSchema, TSchema>, 'do'> & {
	do(call: Call): unknown;
};

/** Holds the types of one operation together; what is described is what is checked. */
export const operation = <Q extends TObject, B extends TSchema, G extends TSchema>(shape: Shape<Q, B, G>): Operation =>
	shape as unknown as Operation;

export const isFile = (gives: Operation['gives']): gives is { file: string[] } => 'file' in gives;
