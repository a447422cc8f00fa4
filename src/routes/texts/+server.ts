import { json } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { dropText, savedTexts, saveText } from '$lib/server/templates';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

const checked = border(
	Type.Object(
		{
			title: Type.String({ maxLength: 100 }),
			subject: Type.String({ maxLength: 200 }),
			message: Type.String({ maxLength: 4000 })
		},
		{ additionalProperties: false }
	)
);

/** The office's saved texts. */
export const GET = () => json(savedTexts(house()));

export const POST = async ({ request }) => {
	const text = checked(await bodyOf(request));
	if (isRefusal(text)) return answer(text);
	return answer(saveText(house(), text));
};

export const DELETE = ({ url }) => json(dropText(house(), url.searchParams.get('id') ?? ''));
