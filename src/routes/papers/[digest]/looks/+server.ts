import { Type } from '@sinclair/typebox';
import { error } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { acceptLooks, pageLook } from '$lib/server/papers';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer, fileResponse } from '$lib/server/web';

const pages = border(
	Type.Object(
		{ pages: Type.Array(Type.Integer({ minimum: 0, maximum: 2000 }), { minItems: 1, maxItems: 2000 }) },
		{ additionalProperties: false }
	)
);

/** A page (`?page=` from 0) as a picture: as it was taken in, or with `&of=file` as the file shows it. */
export const GET = async ({ params, url }) => {
	const page = Number(url.searchParams.get('page'));
	const which = url.searchParams.get('of') === 'file' ? 'file' : 'taken';
	const png = Number.isInteger(page) ? await pageLook(house(), params.digest, page, which) : null;
	if (!png) error(404, { message: 'There is no such page.' });
	return fileResponse(png, 'image/png');
};

/** Takes pages that look different as they are. */
export const POST = async ({ params, request, locals }) => {
	const wanted = pages(await bodyOf(request));
	return answer(isRefusal(wanted) ? wanted : acceptLooks(house(), accountIn(locals), params.digest, wanted.pages));
};
