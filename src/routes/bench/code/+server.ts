import { Type } from '@sinclair/typebox';
import { foldedAnswer } from '$lib/core/identity';
import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { hashedCode } from '$lib/server/packets/codes';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

const closed = { additionalProperties: false } as const;
const As = Type.Union([Type.Literal('text'), Type.Literal('number'), Type.Literal('date')]);
const checked = border(
	Type.Union([
		Type.Object({ code: Type.String({ minLength: 4, maxLength: 40 }) }, closed),
		Type.Object({ answer: Type.String({ minLength: 1, maxLength: 200 }), as: As }, closed)
	])
);

/** An access code, or what the office knows of somebody, as the plan keeps it: salted and hashed, so that the plan never holds it itself. */
export const POST = async ({ request }) => {
	const body = checked(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	if ('code' in body) return answer({ hash: hashedCode(house(), body.code) });
	const kept = foldedAnswer(body.as, body.answer);
	if (kept === '')
		return answer(refuse('answer-empty', 'Nothing of that answer can be compared. Type it in letters or digits.'));
	return answer({ hash: hashedCode(house(), kept) });
};
