// The built server with what must hold before any of its own code runs: time limits for slow connections, and headers that
// every answer has, static files and early refusals among them.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';

process.env.HEADERS_TIMEOUT ??= '10';
process.env.BODY_SIZE_LIMIT ??= '60M';

/** A connection says something within this time, in ms; a body comes at this pace at least, in bytes a second. */
const FIRST_WORD = 10_000;
const BODY = { first: 20_000, pace: 16_384 };

const HEADERS = {
	'X-Content-Type-Options': 'nosniff',
	'X-Frame-Options': 'DENY',
	// 'same-origin' and not 'no-referrer', under which a form's own Origin would be null
	'Referrer-Policy': 'same-origin',
	'Permissions-Policy': 'camera=(), microphone=(), geolocation=()',
	'Cross-Origin-Opener-Policy': 'same-origin',
	...(process.env.ORIGIN?.startsWith('https:') && { 'Strict-Transport-Security': 'max-age=31536000' })
};

holdData();
const { server } = await import('../build/index.js');
const { server: http } = server;
http.on('error', (error) => {
	const port = process.env.PORT ?? '3000';
	stop(
		error.code === 'EADDRINUSE'
			? `Port ${port} is taken by another program. Set PORT to another one, or end that program.`
			: error.code === 'EACCES'
				? `Port ${port} may not be used by this user. Set PORT to one above 1023.`
				: `The server can't listen on port ${port}: ${error.message}`
	);
});

function stop(say) {
	console.error(`Pellum can't start: ${say}`);
	process.exit(1);
}

/** One Pellum to a data folder: two would do the same work twice. Who holds it stands in a file of its own. */
function holdData() {
	const data = process.env.PELLUM_DATA ?? (process.env.PELLUM_DEMO === '1' ? 'data/demo' : 'data/pellum');
	const held = path.resolve(data, 'pellum.pid');
	const by = existsSync(held) ? Number(readFileSync(held, 'utf8')) : 0;
	if (by > 0 && by !== process.pid && isPellum(by))
		stop(
			`the data folder ${data} is held by another Pellum (process ${by}). Set PELLUM_DATA to another folder, or end it.`
		);
	try {
		mkdirSync(path.dirname(held), { recursive: true, mode: 0o700 });
		writeFileSync(held, String(process.pid));
	} catch {
		// a full or read-only disk is said by what writes to it; it holds up no start
		return;
	}
	process.on('exit', () => rmSync(held, { force: true }));
}

/** Whether a process of that number is a server like this one; where that can't be told, whether there is one at all. */
function isPellum(pid) {
	try {
		return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('serve.mjs');
	} catch {
		if (existsSync('/proc/self')) return false;
	}
	try {
		process.kill(pid, 0);
		return true;
	} catch {
		return false;
	}
}

const silent = new WeakMap();
http.on('connection', (socket) => {
	silent.set(
		socket,
		setTimeout(() => socket.destroy(), FIRST_WORD)
	);
	socket.once('close', () => clearTimeout(silent.get(socket)));
});

http.prependListener('request', (request, response) => {
	clearTimeout(silent.get(request.socket));
	for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
	const length = Number(request.headers['content-length'] ?? 0);
	if (request.complete || (length === 0 && !request.headers['transfer-encoding'])) return;
	const slow = setTimeout(() => request.destroy(), BODY.first + (length / BODY.pace) * 1000);
	const over = () => clearTimeout(slow);
	request.once('end', over);
	request.once('close', over);
});
