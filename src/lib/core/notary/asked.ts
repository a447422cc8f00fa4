import { Type } from '@sinclair/typebox';

/** What a notary is asked to do in a packet: which act, and by whose commission. */

export const ACT_KINDS = ['acknowledgement', 'sworn statement', 'witnessed signature', 'certified copy'] as const;
export type ActKind = (typeof ACT_KINDS)[number];

export const NotarySchema = Type.Object(
	{
		act: Type.Union(ACT_KINDS.map((kind) => Type.Literal(kind))),
		/** the id of a commission; '' in a template that leaves it open */
		commission: Type.String({ pattern: '^[0-9A-Za-z_-]{0,40}$' })
	},
	{ additionalProperties: false }
);
