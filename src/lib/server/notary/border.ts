import { Type } from '@sinclair/typebox';
import { PLACEABLE } from '../../core/notary';
import { RectSchema } from '../../core/packet';
import { Line } from '../../core/schema';
import { border } from '../border';

/** What comes from a room, each deed by its schema. */
const Id = Type.String({ pattern: '^[0-9A-Za-z_-]{1,40}$' });
const Words = Type.String({ maxLength: 2000 });
const Page = Type.Integer({ minimum: 0, maximum: 1999 });
const Points = Type.Number({ minimum: -20_000, maximum: 20_000 });
const deed = <T extends Parameters<typeof Type.Object>[0]>(does: string[], more: T) =>
	Type.Object({ do: Type.Union(does.map((one) => Type.Literal(one))), ...more }, { additionalProperties: false });

export const roomBorder = border(
	Type.Union([
		deed(['enter', 'leave', 'begin', 'oath', 'approve', 'finish'], {}),
		deed(['pause', 'doubt', 'refuse'], { why: Words }),
		deed(['say'], { text: Words }),
		deed(['show'], { paper: Id, page: Page }),
		deed(['confirm'], { who: Id, how: Line(200) }),
		deed(['turn'], { who: Id }),
		deed(['again'], { who: Id, why: Words }),
		deed(['place'], {
			who: Id,
			kind: Type.Union(PLACEABLE.map((kind) => Type.Literal(kind))),
			paper: Id,
			page: Page,
			x: Points,
			y: Points
		}),
		deed(['draw'], {
			text: Type.String({ maxLength: 4000 }),
			place: Type.Union([
				Type.Null(),
				Type.Object({ paper: Id, page: Page, rect: RectSchema }, { additionalProperties: false })
			])
		})
	])
);
