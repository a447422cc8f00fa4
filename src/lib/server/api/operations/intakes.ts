import { Type } from '@sinclair/typebox';
import { isRefusal } from '../../../core/refusal';
import { casesOf, listIntakes } from '../../intakes';
import { cursorOf, placeOf } from '../cursors';
import { operation } from '../operation';
import { After, Id, oneOf, pageOf, strict } from '../schemas';
import { CaseBrief } from '../shapes';

export const intakes = [
	operation({
		method: 'get',
		path: '/intakes',
		right: 'look',
		does: 'Intakes of the account, what was changed last first',
		gives: pageOf(
			Type.Object(
				{
					id: Id,
					heading: Type.String(),
					template: Type.String(),
					state: oneOf(['making', 'open', 'closed']),
					address: Type.String({ description: 'the page that visitors open' }),
					begun: Type.Integer(),
					handedIn: Type.Integer()
				},
				strict
			)
		),
		do: ({ house, account }) => ({
			items: listIntakes(house, account).map(({ id, slug, heading, template, state, begun, handed }) => ({
				id,
				heading,
				template,
				state,
				address: `${house.config.origin}/i/${slug}`,
				begun,
				handedIn: handed
			})),
			next: null
		})
	}),
	operation({
		method: 'get',
		path: '/intakes/{intake}/cases',
		right: 'look',
		of: { part: 'intake', kind: 'intake', doing: 'see' },
		does: 'Cases of an intake, the newest first',
		more: 'A case that was handed in names its packet, where the account may see it.',
		query: Type.Object({ after: After }, strict),
		gives: pageOf(CaseBrief),
		do: ({ house, account, part, query }) => {
			const place = placeOf(query.after);
			if (isRefusal(place)) return place;
			const { rows, next } = casesOf(house, account, part['intake']!, place);
			return {
				items: rows.map(({ id, visitor, email, begunAt, seenAt, standing, packet, reference }) => ({
					id,
					visitor,
					email,
					begunAt,
					seenAt,
					standing,
					packet,
					reference
				})),
				next: cursorOf(next)
			};
		}
	})
];
