import { json, redirect, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { house, start } from '$lib/server';
import { accountOf, hasAccounts } from '$lib/server/accounts';
import { passage } from '$lib/server/doors';
import { acceptedLanguages } from '$lib/words';
import { logOf } from '$lib/server/log';

/** Pages that Pellum itself shows in a frame; no other site may. */
const FRAMED = ['/stand-ins/mailbox/[id]/letter', '/bench/[id]/rehearse'];

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
	const { request, url, route, cookies, locals } = event;
	const token = cookies.get('pellum_session');
	locals.account = token ? accountOf(house(), token) : null;
	locals.from = {
		address: event.getClientAddress(),
		device: (request.headers.get('user-agent') ?? 'unknown device').replace(/[^\x20-\x7e]/g, '').slice(0, 200)
	};
	locals.pass = cookies.get('pellum_pass') ?? '';
	locals.language = {
		chosen: cookies.get('pellum_language') ?? null,
		accepted: acceptedLanguages(request.headers.get('accept-language'))
	};
	// What changes something comes from our own pages. The time-stamp stand-in serves programs, and changes nothing.
	const changes = request.method !== 'GET' && request.method !== 'HEAD';
	if (changes && route.id !== '/stand-ins/time-stamp' && request.headers.get('origin') !== url.origin)
		return json({ code: 'other-origin', say: 'This came from another website and was not done.' }, { status: 403 });
	if (route.id !== null) {
		const may = passage(route.id, request.method, locals.account);
		if (may === 'sign-in') {
			if (changes || request.headers.get('accept')?.includes('text/html') !== true)
				return json(
					{
						code: 'signed-out',
						say: 'You have been signed out. Sign in again in another tab; what you entered here is kept.'
					},
					{ status: 401 }
				);
			redirect(303, hasAccounts(house()) ? `/sign-in?to=${encodeURIComponent(url.pathname)}` : '/set-up');
		}
		if (may === 'shut')
			return json({ code: 'not-permitted', say: 'Your account may not do this. Ask an owner.' }, { status: 403 });
	}
	const response = await resolve(event);
	response.headers.set('X-Content-Type-Options', 'nosniff');
	response.headers.set('X-Frame-Options', FRAMED.includes(route.id ?? '') ? 'SAMEORIGIN' : 'DENY');
	const policy = response.headers.get('Content-Security-Policy');
	if (policy && FRAMED.includes(route.id ?? ''))
		response.headers.set('Content-Security-Policy', policy.replace("frame-ancestors 'none'", "frame-ancestors 'self'"));
	// 'same-origin' and not 'no-referrer', under which a form's own Origin would be null
	response.headers.set('Referrer-Policy', 'same-origin');
	response.headers.set('Permissions-Policy', 'camera=(), microphone=(), geolocation=()');
	if (!response.headers.has('Cache-Control')) response.headers.set('Cache-Control', 'no-store');
	return response;
};

export const handleError: HandleServerError = ({ error, status }) => {
	if (status === 404) return { message: 'There is no page at this address.' };
	const full = (error as { code?: string } | null)?.code;
	log.error(error);
	if (full === 'SQLITE_FULL' || full === 'SQLITE_READONLY' || full?.startsWith('SQLITE_IOERR'))
		return {
			message: 'Nothing can be written to the disk at the moment, so nothing was done. Ask whoever runs this Pellum.',
			code: 'disk'
		};
	return { message: 'Something went wrong on our side, and nothing was half done. Try again in a moment.' };
};
