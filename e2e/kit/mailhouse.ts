import { SMTPServer } from 'smtp-server';

/** A turn that somebody was written to about. */
export interface Letter {
	to: string;
	person: string;
	token: string;
}

/** A mail server that keeps what it takes, counts what comes again, and can be made to hang. */
export class Mailhouse {
	got = 0;
	/** the same Message-ID a second time: after a crash between the server's yes and the record of it */
	repeats = 0;
	/** the same letter under another Message-ID */
	doubles = 0;
	private hangs = false;
	private ids = new Set<string>();
	private letters = new Set<string>();
	private turns: Letter[] = [];
	private held: (() => void)[] = [];

	private constructor(
		private server: SMTPServer,
		readonly url: string
	) {}

	static async open(): Promise<Mailhouse> {
		// eslint-disable-next-line prefer-const -- the server's handlers speak of the house that is made with it
		let house: Mailhouse;
		const server = new SMTPServer({
			authOptional: true,
			disabledCommands: ['STARTTLS'],
			logger: false,
			onConnect: (_session, done) => (house.hangs ? void house.held.push(done) : done()),
			onData: (stream, session, done) => {
				let raw = '';
				stream.on('data', (chunk: Buffer) => (raw += chunk.toString()));
				stream.on('end', () => {
					if (house.hangs) return void house.held.push(done);
					const to = session.envelope.rcptTo[0];
					house.take(to ? to.address : '', raw);
					done();
				});
			}
		});
		server.on('error', () => {});
		await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
		const { port } = server.server.address() as { port: number };
		house = new Mailhouse(server, `smtp://127.0.0.1:${port}`);
		return house;
	}

	hang(yes: boolean): void {
		this.hangs = yes;
		if (!yes) this.held.splice(0).forEach((done) => done());
	}

	get waiting(): number {
		return this.turns.length;
	}
	next(): Letter | undefined {
		return this.turns.shift();
	}
	again(letter: Letter): void {
		this.turns.push(letter);
	}
	close(): Promise<void> {
		this.hang(false);
		return new Promise((done) => this.server.close(() => done()));
	}

	private take(to: string, raw: string): void {
		const text = raw.replaceAll('=\r\n', '');
		const id = /^Message-ID: *(\S+)/im.exec(text)?.[1] ?? '';
		const subject = /^Subject: *(.+)/im.exec(text)?.[1]?.trim() ?? '';
		// what parts a message is made of have names that may look like a reference
		const reference = /P-[0-9A-Z]{5}/.exec(text.replace(/_NmP-\S+/g, ''))?.[0] ?? '';
		this.got += 1;
		if (this.ids.has(id)) this.repeats += 1;
		else if (this.letters.has(`${to} ${subject} ${reference}`)) this.doubles += 1;
		this.ids.add(id);
		this.letters.add(`${to} ${subject} ${reference}`);
		const token = /\/s\/([\w-]{43})/.exec(text)?.[1];
		const name = to.split('@')[0]!;
		if (token && subject.startsWith('To sign'))
			this.turns.push({ to, token, person: /^s\d+$/.test(name) ? 'steward' : name });
	}
}
