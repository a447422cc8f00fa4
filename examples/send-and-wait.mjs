// Sends a packet of a template to one person, and waits until it is over: send-and-wait.mjs TEMPLATE NAME ADDRESS
import { randomUUID } from 'node:crypto';
import { ask, templateCalled } from './pellum.mjs';

const [title, name, email] = process.argv.slice(2);
const { id } = await templateCalled(title);
const { people } = await ask('GET', `/templates/${id}`);
const { role } = people.find((one) => one.open);
const body = { template: id, people: { [role]: { name, email } } };
// asked again after a lost connection, it is sent once
const sent = await ask('POST', '/packets', { body, once: randomUUID() });
console.log(`Sent ${sent.reference} to ${name}.`);

let packet;
let last = '';
do {
	packet = await ask('GET', `/packets/${sent.id}`);
	const now = packet.people.map((one) => `${one.name} ${one.state}`).join(', ');
	if (now !== last) console.log(now);
	last = now;
	if (packet.status === 'out') await new Promise((go) => setTimeout(go, Number(process.env.EVERY ?? 30) * 1000));
} while (['out', 'held'].includes(packet.status));
console.log(`${packet.reference} is ${packet.status}. ${packet.why}`);
process.exitCode = packet.status === 'completed' ? 0 : 1;
