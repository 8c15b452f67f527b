import { readFileSync } from 'node:fs';
import { readProbe } from '$core/probe';
import { sentence } from '$core/basics/result';
import { Refusal } from '../files';
import { type Command, say, sayJson, need } from '../say';

export const probe: Command = (args, flags) => {
	const path = need(args, 'FILE');
	const read = readProbe(readFileSync(path === '-' ? 0 : path, 'utf8'));
	if (!read.ok) throw new Refusal(sentence(read.faults));
	const { facts, understood, notUnderstood, leftOut } = read.value;
	if (flags.json) sayJson(read.value);
	else {
		say(`Understood: ${understood.join(', ')}`);
		if (facts.model) say(`Board: ${facts.model}${facts.memoryMb ? `, ${facts.memoryMb} MB` : ''}`);
		for (const d of facts.soundDevices)
			say(
				`Sound: hw:CARD=${d.cardId},DEV=${d.deviceNumber}  ${d.cardName}${d.playback ? `  ${d.playback.ratesHz.join('/')} Hz, ${d.playback.formats.join('/')}, ${d.playback.channels.join('/')} channels` : '  abilities not reported'}`
			);
		for (const c of facts.connectors)
			say(`Screen socket: ${c.name} ${c.connected ? `connected, ${c.modes.length} modes` : 'empty'}`);
		if (facts.supplyAlarm) say('Supply: the board has reported too little voltage');
		if (leftOut.length) say(`Left out:\n  ${leftOut.join('\n  ')}`);
		if (notUnderstood.length) say(`Not understood:\n  ${notUnderstood.join('\n  ')}`);
	}
	return 0;
};
