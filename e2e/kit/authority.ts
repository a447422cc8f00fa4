import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { tmpdir } from 'node:os';

/** An authority by OpenSSL, with one between it and whom it certifies: what an office is given by somebody else's program. */
export interface Authority {
	/** a PKCS #12 file with its chain */
	p12(options?: P12): Uint8Array;
	/** its root and the one between, PEM */
	certificates: Uint8Array[];
	/** lists of both, DER or PEM as OpenSSL wrote them. @param next when a newer one will be there */
	lists(next?: string): Uint8Array[];
}
interface P12 {
	key?: 'ec' | 'rsa' | 'small' | 'curve' | 'odd';
	password?: string;
	/** 'alone': without what issued it; 'keyless': without its key; 'old': locked as twenty years ago */
	how?: 'alone' | 'keyless' | 'old';
	from?: string;
	until?: string;
	/** what it may do */
	usage?: string;
	/** how often the password is stretched */
	rounds?: number;
}

const START = '20200101000000Z';

export function authority(list = 'http://127.0.0.1:9/list.crl'): Authority {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-authority-'));
	process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
	const at = (name: string) => path.join(folder, name);
	const openssl = (...args: string[]) =>
		execFileSync('openssl', args, { cwd: folder, stdio: ['ignore', 'pipe', 'pipe'] });
	writeFileSync(
		at('ca.cnf'),
		[
			'[req]\ndistinguished_name=dn\n[dn]',
			...['root', 'between'].map(
				(name) =>
					`[${name}]\ndatabase=${name}.txt\nnew_certs_dir=new\nserial=${name}.srl\ncrlnumber=${name}.num\ndefault_md=sha256\npolicy=any\nunique_subject=no\ncopy_extensions=none\ndefault_crl_days=30`
			),
			'[any]\ncommonName=supplied\norganizationName=optional',
			'[authority]\nbasicConstraints=critical,CA:true\nkeyUsage=critical,keyCertSign,cRLSign\nsubjectKeyIdentifier=hash',
			...['nonRepudiation,digitalSignature', 'keyEncipherment'].map(
				(usage, i) =>
					`[leaf${i}]\nbasicConstraints=critical,CA:false\nkeyUsage=critical,${usage}\ncrlDistributionPoints=URI:${list}\nsubjectKeyIdentifier=hash`
			)
		].join('\n')
	);
	mkdirSync(at('new'));
	for (const name of ['root', 'between']) {
		writeFileSync(at(`${name}.txt`), '');
		writeFileSync(at(`${name}.srl`), '1000\n');
		writeFileSync(at(`${name}.num`), '01\n');
	}
	const key = (name: string, kind: P12['key']) =>
		kind === 'rsa' || kind === 'small'
			? openssl('genrsa', '-out', `${name}.key`, kind === 'rsa' ? '2048' : '1024')
			: openssl(
					'ecparam',
					'-genkey',
					'-noout',
					'-name',
					{ ec: 'prime256v1', curve: 'secp521r1', odd: 'secp256k1' }[kind ?? 'ec'],
					'-out',
					`${name}.key`
				);
	const certify = (name: string, subject: string, by: string, extensions: string, from: string, until: string) => {
		openssl('req', '-new', '-key', `${name}.key`, '-subj', subject, '-out', `${name}.csr`, '-config', 'ca.cnf');
		const self = by === name;
		const signer = self ? ['-selfsign', '-keyfile', `${name}.key`] : ['-cert', `${by}.pem`, '-keyfile', `${by}.key`];
		openssl(
			...['ca', '-batch', '-config', 'ca.cnf', '-name', by, ...signer, '-in', `${name}.csr`, '-out', `${name}.pem`],
			...['-extensions', extensions, '-startdate', from, '-enddate', until, '-notext']
		);
	};
	key('root', 'ec');
	certify('root', '/CN=Tarrow Trust root', 'root', 'authority', START, '20450101000000Z');
	key('between', 'ec');
	certify('between', '/CN=Tarrow Trust seals', 'root', 'authority', START, '20400101000000Z');
	let n = 0;
	return {
		certificates: ['root', 'between'].map((name) => readFileSync(at(`${name}.pem`))),
		lists: (next = '20270101000000Z') =>
			['root', 'between'].map((name) => {
				openssl(
					...['ca', '-config', 'ca.cnf', '-name', name, '-gencrl', '-cert', `${name}.pem`, '-keyfile', `${name}.key`],
					...['-crl_lastupdate', START, '-crl_nextupdate', next, '-out', `${name}.crl`]
				);
				return readFileSync(at(`${name}.crl`));
			}),
		p12: ({
			key: kind = 'ec',
			password = 'cello',
			how,
			from = START,
			until = '20290101000000Z',
			usage = '0',
			rounds = 2048
		} = {}) => {
			const name = `leaf-${(n += 1)}`;
			key(name, kind);
			certify(
				name,
				'/CN=Seal of the orchestra/O=Brindlevale Touring Orchestra',
				'between',
				`leaf${usage}`,
				from,
				until
			);
			writeFileSync(at('chain.pem'), Buffer.concat([readFileSync(at('between.pem')), readFileSync(at('root.pem'))]));
			const args = ['pkcs12', '-export', '-in', `${name}.pem`, '-out', `${name}.p12`, '-passout', `pass:${password}`];
			openssl(
				...args,
				...['-iter', String(rounds)],
				...(how === 'keyless' ? ['-nokeys'] : ['-inkey', `${name}.key`]),
				...(how === 'alone' ? [] : ['-certfile', 'chain.pem']),
				...(how === 'old' ? ['-keypbe', 'PBE-SHA1-3DES', '-certpbe', 'PBE-SHA1-3DES', '-macalg', 'sha1'] : [])
			);
			return readFileSync(at(`${name}.p12`));
		}
	};
}
