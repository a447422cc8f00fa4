import { error } from '@sveltejs/kit';
import { isRefusal, type Refusal } from '../core/refusal';
import { chosenLanguage, wordsOf } from '../words';
import { house } from './index';
import { count, TOO_MANY_LINKS, TOO_OFTEN } from './limits';
import { visit, type Visitor } from './signing';

/**
 * The visitor behind a link, or a refusal. Links that lead nowhere are counted by address, so that nobody can try many; one
 * that leads somewhere is never shut out by what others at the same address have tried.
 */
export async function visitorOf(token: string, locals: App.Locals): Promise<Visitor | Refusal> {
	const { address } = locals.from;
	const visitor = visit(house(), token, locals.pass);
	if (
		isRefusal(visitor) &&
		(visitor.code === 'no-link' || visitor.code === 'link-gone') &&
		!(await count('link', address))
	)
		return TOO_MANY_LINKS;
	return visitor;
}

/** The same for what writes: so often in a while by one link, which holds up nobody else. */
export async function doerOf(token: string, locals: App.Locals, limit: 'save' | 'deed'): Promise<Visitor | Refusal> {
	const visitor = await visitorOf(token, locals);
	if (isRefusal(visitor) || (await count(limit, `${visitor.packet.packet} ${visitor.person.id}`))) return visitor;
	return TOO_OFTEN;
}

/** The same for what is only looked at: a refusal is the error page, in the visitor's language. */
export async function visitorOrError(token: string, locals: App.Locals): Promise<Visitor> {
	const visitor = await visitorOf(token, locals);
	if (isRefusal(visitor)) {
		const words = wordsOf(chosenLanguage(locals.language.chosen, ...locals.language.accepted));
		error(STATUS[visitor.code] ?? 422, { message: words.refusal(visitor), code: visitor.code });
	}
	return visitor;
}

const STATUS: Record<string, number> = {
	'no-link': 404,
	'link-gone': 404,
	'link-revoked': 410,
	'link-old': 410,
	'handed-over': 410,
	'not-needed': 410,
	'too-often': 429
};

/** The language of a visitor's page: what they chose, what the sender chose for them, what their browser asks for. */
export function languageOf({ person, packet }: Visitor, { language }: App.Locals): string {
	return chosenLanguage(language.chosen, person.locale, ...language.accepted, packet.plan.locale);
}
