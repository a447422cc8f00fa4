import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { Line } from '$lib/core/schema';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { border } from '$lib/server/border';
import { answersOfMany, copiesAsZip, listOfMany } from '$lib/server/filing';
import { accountIn, answer, fileResponse } from '$lib/server/web';

const asked = border(
	Type.Object(
		{
			ids: Type.Array(Line(40), { minItems: 1, maxItems: 1000 }),
			what: Type.Union([Type.Literal('copies'), Type.Literal('answers'), Type.Literal('list')]),
			as: Type.Union([Type.Literal('zip'), Type.Literal('csv'), Type.Literal('xlsx')])
		},
		{ additionalProperties: false }
	)
);

/** What is chosen in the records, as one file: its copies as a ZIP that is made while it is fetched, its answers or the list as a table. */
export const POST = async ({ request, locals }) => {
	const given = asked(await bodyOf(request));
	if (isRefusal(given)) return answer(given);
	const { ids, what, as } = given;
	const account = accountIn(locals);
	if (what === 'copies') {
		const { stream, bytes } = copiesAsZip(house(), account, ids);
		return new Response(stream, {
			headers: {
				'Content-Type': 'application/zip',
				'Cache-Control': 'no-store',
				'Content-Disposition': 'attachment; filename="records.zip"',
				'Whole-Bytes': String(bytes)
			}
		});
	}
	const made = await (what === 'answers' ? answersOfMany : listOfMany)(house(), account, ids, as);
	return fileResponse(made.bytes, made.media, made.name);
};
