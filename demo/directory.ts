import { generateKeyPairSync, randomBytes } from 'node:crypto';
import type { Server } from 'node:http';
import { Provider, type Configuration } from 'oidc-provider';

/**
 * A stand-in for an office's directory: an OpenID provider with made-up people, who sign in by pressing their name. For the demo
 * and for tests; whoever reaches it is whoever they say.
 */
interface DirectoryPerson {
	id: string;
	name: string;
	email: string;
	email_verified: boolean;
	groups: string[];
}

export const DIRECTORY_PEOPLE: DirectoryPerson[] = [
	{
		id: 'odile',
		name: 'Odile Farrow',
		email: 'odile@brindlevale.example',
		email_verified: true,
		groups: ['agreements-owners', 'company-office']
	},
	{
		id: 'juno',
		name: 'Juno Abernathy',
		email: 'juno@brindlevale.example',
		email_verified: true,
		groups: ['company-office']
	},
	{ id: 'piet', name: 'Piet Solano', email: 'piet@brindlevale.example', email_verified: true, groups: ['players'] },
	{ id: 'odd', name: 'Odd One', email: 'odile@brindlevale.example', email_verified: false, groups: ['company-office'] }
];

/** How a Pellum is told of it. */
export function directoryEnv(port: number): Record<string, string> {
	return {
		PELLUM_DIRECTORY: `http://127.0.0.1:${port}`,
		PELLUM_DIRECTORY_CLIENT: 'pellum',
		PELLUM_DIRECTORY_SECRET: 'published-and-worthless',
		PELLUM_DIRECTORY_NAME: 'the directory (stand-in)',
		PELLUM_DIRECTORY_LEVELS: 'groups:agreements-owners=owner,groups:company-office=preparer'
	};
}

/** Starts it on this machine only, for one Pellum. */
export function startDirectory(port: number, origin: string): Promise<Server> {
	const issuer = `http://127.0.0.1:${port}`;
	const { privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 });
	const people = new Map(DIRECTORY_PEOPLE.map((person) => [person.id, person]));
	const configuration: Configuration = {
		clients: [
			{
				client_id: 'pellum',
				client_secret: 'published-and-worthless',
				redirect_uris: [`${origin}/sign-in/directory/back`],
				grant_types: ['authorization_code'],
				response_types: ['code']
			}
		],
		jwks: { keys: [{ ...privateKey.export({ format: 'jwk' }), use: 'sig', alg: 'RS256', kid: 'stand-in' }] as never },
		cookies: { keys: [randomBytes(32).toString('hex')] },
		claims: { openid: ['sub'], profile: ['name', 'groups'], email: ['email', 'email_verified'] },
		findAccount: (_, id) => {
			const person = people.get(id);
			return person && { accountId: id, claims: () => ({ sub: id, ...person }) };
		},
		// everything that is asked for is granted: there is nothing to protect
		loadExistingGrant: async (context) => {
			const { provider, client, session } = context.oidc;
			const grant = new provider.Grant({ clientId: client!.clientId, accountId: session!.accountId! });
			grant.addOIDCScope('openid profile email');
			await grant.save();
			return grant;
		},
		interactions: { url: (_, { uid }) => `/who/${uid}` },
		features: { devInteractions: { enabled: false } },
		ttl: { Session: 3600, Grant: 3600, Interaction: 600, AccessToken: 600, IdToken: 600 }
	};
	const provider = new Provider(issuer, configuration);
	provider.use(async (context, next) => {
		const [, uid, who] = /^\/who\/([\w-]+)(?:\/(\w+))?$/.exec(context.path) ?? [];
		if (!uid) return next();
		if (who && people.has(who)) {
			const to = await provider.interactionResult(context.req, context.res, { login: { accountId: who } });
			context.redirect(to);
			return;
		}
		context.type = 'html';
		context.body = `<!doctype html><html lang="en"><title>The directory</title><main style="font:17px sans-serif;max-width:24rem;margin:4rem auto">
<h1>Who are you?</h1><p>A stand-in for an office’s directory: press a name.</p>
${DIRECTORY_PEOPLE.map(({ id, name, groups }) => `<p><a href="/who/${uid}/${id}">${name}</a>, ${groups.join(', ')}</p>`).join('\n')}</main></html>`;
	});
	return new Promise((resolve, reject) => {
		const server: Server = provider.listen(port, '127.0.0.1', () => resolve(server));
		server.once('error', reject);
	});
}
