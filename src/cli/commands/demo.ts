import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { readPlanFile } from '../files';
import { type Command, say, need } from '../say';

export const demo: Command = (args) => {
	const dir = need(args, 'DIR');
	mkdirSync(dir, { recursive: true });
	writeFileSync(
		join(dir, 'skerrin-light.yphos.json'),
		`${JSON.stringify(readPlanFile('demo').workshop, null, '\t')}\n`
	);
	say(`wrote ${join(dir, 'skerrin-light.yphos.json')}`);
	return 0;
};
