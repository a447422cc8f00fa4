// The built server with what must hold before any of its own code runs: time limits for slow connections, and headers that
// every answer has, static files and early refusals among them.
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

const { server } = await import('../build/index.js');
const { server: http } = server;

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
