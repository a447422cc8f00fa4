import { error } from '@sveltejs/kit';
import { isRefusal, refuse, type Refusal } from '../core/refusal';
import { house } from './index';
import { count, isOverLimit } from './limits';
import { visit, type Visitor } from './packets/signing';

/** The visitor behind a link, or a refusal. Links that lead nowhere are counted by address, so that nobody can try many. */
export async function visitorOf(token: string, locals: App.Locals): Promise<Visitor | Refusal> {
	const { address } = locals.from;
	if (await isOverLimit('link', address))
		return refuse('too-often', 'Too many links that lead nowhere. Wait ten minutes, then try again.');
	const visitor = visit(house(), token);
	if (isRefusal(visitor)) await count('link', address);
	return visitor;
}

/** The same for what is only looked at: a refusal is the error page. */
export async function visitorOrError(token: string, locals: App.Locals): Promise<Visitor> {
	const visitor = await visitorOf(token, locals);
	if (isRefusal(visitor))
		error({ 'no-link': 404, 'link-revoked': 410, 'too-often': 429 }[visitor.code] ?? 422, {
			message: visitor.say,
			code: visitor.code
		});
	return visitor;
}
