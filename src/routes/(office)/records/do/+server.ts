import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { Line } from '$lib/core/schema';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { border } from '$lib/server/border';
import { fileMany } from '$lib/server/filing';
import { accountIn, answer } from '$lib/server/web';

const Ids = Type.Array(Line(40), { minItems: 1, maxItems: 1000 });
const deed = <T extends Parameters<typeof Type.Object>[0]>(properties: T) =>
	Type.Object({ ids: Ids, ...properties }, { additionalProperties: false });
const asked = border(
	Type.Union([
		deed({ do: Type.Literal('archive'), reason: Type.Optional(Type.String({ maxLength: 2000 })) }),
		deed({ do: Type.Literal('bin'), reason: Type.Optional(Type.String({ maxLength: 2000 })) }),
		deed({ do: Type.Literal('restore') }),
		deed({ do: Type.Literal('folder'), folder: Line(80) }),
		deed({ do: Type.Literal('type'), type: Line(80) }),
		deed({
			do: Type.Literal('keep'),
			until: Type.Union([Line(10), Type.Null()]),
			why: Type.String({ maxLength: 2000 })
		})
	])
);

/** Puts the packets chosen away, back, into a folder or under a type; says which were refused, and why. */
export const POST = async ({ request, locals }) => {
	const given = asked(await bodyOf(request));
	if (isRefusal(given)) return answer(given);
	const { ids, ...wanted } = given;
	return answer(await fileMany(house(), accountIn(locals), ids, wanted));
};
