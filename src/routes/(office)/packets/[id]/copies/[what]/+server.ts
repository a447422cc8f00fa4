import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { copyFile } from '$lib/server/packets/copies';
import { recordFetch } from '$lib/server/packets/office';
import { auditRecord } from '$lib/server/packets/log';
import { packetState } from '$lib/server/packets/act';
import { answersAsCsv, answersAsJson } from '$lib/server/packets/data';
import { accountIn, fileResponse } from '$lib/server/web';

export const GET = ({ params, locals }) => {
	const packet = packetState(house().db, params.id);
	if (packet.status === 'none') error(404, { message: 'There is no such packet.' });
	if (params.what === 'record')
		return fileResponse(
			Buffer.from(JSON.stringify(auditRecord(house().db, packet.packet), null, '\t')),
			'application/json',
			`Record ${packet.reference}.json`
		);
	if (params.what === 'answers')
		return fileResponse(Buffer.from(answersAsJson(packet)), 'application/json', `Answers ${packet.reference}.json`);
	if (params.what === 'answers-csv')
		return fileResponse(
			Buffer.from(answersAsCsv(packet)),
			'text/csv; charset=utf-8',
			`Answers ${packet.reference}.csv`
		);
	const file = copyFile(house(), packet, params.what);
	if (!file) error(404, { message: 'There is no such copy yet.' });
	recordFetch(house(), accountIn(locals), packet.packet, file.name);
	return fileResponse(file.bytes, file.media, file.name);
};
