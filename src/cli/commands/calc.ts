import { readFileSync } from 'node:fs';
import { calculations } from '$core/calculations';
import { linesOf } from '$core/formats/lines';
import { Refusal } from '../files';
import { type Command, say, need } from '../say';

export const calc: Command = (args) => {
	const name = need(args, 'NAME');
	const calculation = Object.hasOwn(calculations, name) ? calculations[name] : undefined;
	if (!calculation)
		throw new Refusal(`There is no calculation ${name}. There are: ${Object.keys(calculations).join(', ')}.`);
	let bad = 0;
	for (const line of linesOf(readFileSync(0, 'utf8'))) {
		if (line.trim() === '') continue;
		try {
			say(JSON.stringify(calculation(JSON.parse(line))));
		} catch (error) {
			bad++;
			say(JSON.stringify({ error: (error as Error).message }));
		}
	}
	return bad ? 1 : 0;
};
