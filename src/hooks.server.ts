import { error, json, type Handle, type HandleServerError, type RequestEvent, type ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { randomUUID } from 'node:crypto';
import { house, start } from '$lib/server';
import { hasAccounts, sessionOf } from '$lib/server/accounts';
import { isBusy, isFull, writable } from '$lib/server/db';
import { bodyFault } from '$lib/server/bodies';
import { permitted } from '$lib/server/access';
import { doorName } from '$lib/server/door-name';
import { askedAt, mostAt, passage } from '$lib/server/doors';
import { tellRefused } from '$lib/server/office-record/refused';
import { framesFor } from '$lib/server/intakes';
import { acceptedLanguages } from '$lib/words';
import { logOf } from '$lib/server/log';

/** Pages that Pellum itself shows in a frame; no other site may. */
const FRAMED = [
	'/stand-ins/mailbox/[id]/letter',
	'/bench/[id]/rehearse',
	'/batches/[id]/rehearse',
	'/intakes/[id]/rehearse'
];

const log = logOf('pellum');

export const init: ServerInit = async () => {
	if (building) return;
	try {
		await start();
	} catch (error) {
		console.error(`Pellum can't start: ${(error as Error).message}`);
		process.exit(1);
	}
};

export const handle: Handle = async ({ event, resolve }) => {
	const { request, cookies, locals } = event;
	const route = doorName(event.route.id);
	locals.request = randomUUID().slice(0, 8);
	locals.token = cookies.get('pellum_session') ?? '';
	locals.session = locals.token ? sessionOf(house(), locals.token) : null;
	locals.account = locals.session && locals.session.wants !== 'second' ? locals.session.account : null;
	locals.from = {
		address: event.getClientAddress(),
		device: (request.headers.get('user-agent') ?? 'unknown device').replace(/[^\x20-\x7e]/g, '').slice(0, 200)
	};
	locals.pass = cookies.get('pellum_pass') ?? '';
	locals.language = {
		chosen: cookies.get('pellum_language') ?? null,
		accepted: acceptedLanguages(request.headers.get('accept-language'))
	};
	const no = refusedAtTheDoor(event, route) ?? (await busy(request));
	const response = no ?? (await resolve(event));
	// what failed for a while only is to be tried again, by the page itself
	response.headers.set('X-Request-Id', locals.request);
	return guarded(locals.failed ? new Response(response.body, later(response.headers)) : response, event, route);
};

const NOT_YOURS = 'Only whose it is may do this, or an owner of the office.';

/** What somebody reaches who must set up a second factor first. */
const WITHOUT_SECOND = /^\/(account|sign-out|logo|s\/|prove)/;

/** What is refused before any route has seen it; a redirect to the sign-in page for a page that wants an account. */
function refusedAtTheDoor({ request, url, params, locals }: RequestEvent, route: string | null): Response | null {
	// What changes something comes from our own pages.
	const changes = request.method !== 'GET' && request.method !== 'HEAD';
	// what comes with its own key or signature has no cookies to be misused
	const byKey = route?.startsWith('/api/') === true || route === '/stand-ins/receiver';
	if (changes && !byKey && request.headers.get('origin') !== url.origin)
		return json({ code: 'other-origin', say: 'This came from another website and was not done.' }, { status: 403 });
	const may = route === null ? 'open' : passage(route, request.method, locals.account, house().config.demo);
	if (may === 'sign-in') {
		if (changes || request.headers.get('accept')?.includes('text/html') !== true)
			return json(
				{
					code: 'signed-out',
					say: 'You have been signed out. Sign in again in another tab; what you entered here is kept.'
				},
				{ status: 401 }
			);
		const to = hasAccounts(house()) ? `/sign-in?to=${encodeURIComponent(url.pathname)}` : '/set-up';
		return new Response(null, { status: 303, headers: { Location: to } });
	}
	// a second factor that is required and not there yet comes before everything else
	if (locals.session?.wants === 'set-up' && !WITHOUT_SECOND.test(route ?? '/'))
		return changes || request.headers.get('accept')?.includes('text/html') !== true
			? json({ code: 'second-first', say: 'Set up a second factor first, under your account.' }, { status: 403 })
			: new Response(null, { status: 303, headers: { Location: '/account' } });
	if (may === 'shut') {
		void tellRefused(house(), locals, `${request.method} ${route}`);
		return json({ code: 'not-permitted', say: 'Your account may not do this. Ask an owner.' }, { status: 403 });
	}
	const asked = locals.account && askedAt(route, request.method, params);
	if (asked && !permitted(house().db, locals.account!, asked.doing, asked.kind, asked.id)) {
		void tellRefused(house(), locals, `${request.method} ${route}, ${asked.kind} ${asked.id}`);
		// whether there is one is told to nobody who may not see it
		const say = asked.doing === 'see' ? 'There is nothing here, or it is not yours to see.' : NOT_YOURS;
		if (!changes && request.headers.get('accept')?.includes('text/html')) error(404, { message: say });
		return json({ code: 'not-yours', say }, { status: asked.doing === 'see' ? 404 : 403 });
	}
	const large = changes ? bodyFault(request, mostAt(route)) : null;
	if (!large) return null;
	const { code, say, values } = large.no;
	// the connection stays: whoever still sends would be cut off before the sentence has come; what comes is let go unread
	return json({ code, say, values }, { status: large.status });
}

/** How long something that changes waits for another program's lock on the database, in ms. */
const PATIENCE = 8000;
const BUSY = {
	code: 'busy',
	say: 'Something else is being written at the moment. Nothing was done yet; it is tried again by itself.'
};
const later = (headers?: Headers): ResponseInit => {
	const said = new Headers(headers);
	said.set('Retry-After', '1');
	return { status: 503, headers: said };
};

async function busy(request: Request): Promise<Response | null> {
	if (request.method === 'GET' || request.method === 'HEAD' || (await writable(house().db, PATIENCE))) return null;
	return json(BUSY, later());
}

/** The headers of every answer; those that static files have too stand in scripts/serve.mjs. */
function guarded(response: Response, { params, url }: RequestEvent, route: string | null): Response {
	const framed = FRAMED.includes(route ?? '');
	const origins = framed ? [] : framesFor(house(), route, params);
	const { headers } = response;
	headers.set('X-Content-Type-Options', 'nosniff');
	// X-Frame-Options knows no origins (RFC 7034 §2.1): where some are meant, the policy says which
	if (origins.length > 0) headers.delete('X-Frame-Options');
	else headers.set('X-Frame-Options', framed ? 'SAMEORIGIN' : 'DENY');
	const policy = headers.get('Content-Security-Policy');
	if (policy && (framed || origins.length > 0))
		headers.set(
			'Content-Security-Policy',
			policy.replace("frame-ancestors 'none'", `frame-ancestors ${["'self'", ...origins].join(' ')}`)
		);
	// 'same-origin' and not 'no-referrer', under which a form's own Origin would be null
	headers.set('Referrer-Policy', 'same-origin');
	// a person may take pictures of their document on their own page, and nowhere else
	const camera = route === '/s/[token]' ? 'self' : '';
	headers.set('Permissions-Policy', `camera=(${camera}), microphone=(), geolocation=()`);
	if (url.protocol === 'https:') headers.set('Strict-Transport-Security', 'max-age=31536000');
	if (!headers.has('Cache-Control')) headers.set('Cache-Control', 'no-store');
	return response;
}

export const handleError: HandleServerError = ({ error, status, event }) => {
	if (status === 404) return { message: 'There is no page at this address.' };
	// what failed before the first hook has no number yet
	const request = event.locals?.request;
	log.error({ err: error, request, route: event.route?.id, status }, 'a request failed');
	const failed = isFull(error) ? 'disk' : isBusy(error) ? 'busy' : null;
	if (failed && event.locals) event.locals.failed = failed;
	if (failed === 'disk')
		return {
			message: 'Nothing can be written to the disk at the moment, so nothing was done. Ask whoever runs this Pellum.',
			code: 'disk',
			request
		};
	if (failed === 'busy') return { message: BUSY.say, code: BUSY.code };
	return { message: 'Something went wrong on our side, and nothing was half done. Try again in a moment.', request };
};
