// As much as these three programs ask for: a call that says in words what is wrong.
const { PELLUM: at, PELLUM_KEY: key } = process.env;
if (!at || !key) {
	console.error('Set PELLUM to its address, and PELLUM_KEY to a key of yours.');
	process.exit(2);
}

/** Asks Pellum; what is busy, or asked too often, is asked again when it says so. Throws what a refusal says. */
export async function ask(method, path, { body, file, once } = {}) {
	for (;;) {
		const response = await fetch(`${at}/api/v1${path}`, {
			method,
			headers: {
				Authorization: `Bearer ${key}`,
				...(once && { 'Idempotency-Key': once }),
				...(file ? { 'Content-Type': 'application/octet-stream' } : body && { 'Content-Type': 'application/json' })
			},
			body: file ?? (body && JSON.stringify(body))
		});
		if (response.status === 429 || response.status === 503) {
			await new Promise((go) => setTimeout(go, 1000 * Number(response.headers.get('retry-after') ?? 5)));
			continue;
		}
		if (!response.ok) throw new Error((await response.json()).detail);
		const json = response.headers.get('content-type')?.includes('json');
		return json ? response.json() : Buffer.from(await response.arrayBuffer());
	}
}

/** A template by its title. */
export async function templateCalled(title) {
	const { items } = await ask('GET', `/templates?search=${encodeURIComponent(title)}`);
	const found = items.find((one) => one.title === title);
	if (!found) throw new Error(`There is no template called “${title}”.`);
	return found;
}
