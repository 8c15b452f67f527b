import { spawnSync } from 'node:child_process';
import { expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { cardText } from '../../files/cardBytes';
import { chain } from '../../chain';
import { contextFor } from '../../engines/context';
import { write } from '../../engines/write';
import { writers } from '../../writers';

/** A file of settings as the programs that set up a console read it: by a shell. Source: keyboard(5), locale(5). */
const sourced = (text: string): Record<string, string> => {
	const { stdout } = spawnSync('env', ['-i', 'sh', '-c', `${text}\nset`], { encoding: 'utf8' });
	return Object.fromEntries([...stdout.matchAll(/^([A-Z]+)='(.*)'$/gm)].map(([, name, value]) => [name, value]));
};

it.each(demoWorkshop.endpoints.map(({ id, plan }) => [id, plan] as const))(
	'keyboard and language of %s stand where a shell finds them',
	(id, plan) => {
		const files = write(writers, plan, contextFor(chain, demoWorkshop, id));
		const text = (name: string): string => {
			const file = files.find(({ path }) => path.endsWith(`/etc/default/${name}`));
			return file && 'lines' in file ? cardText(file) : '';
		};
		expect(sourced(text('keyboard'))).toMatchObject({
			XKBMODEL: 'pc105',
			XKBLAYOUT: plan.network.keyboard,
			BACKSPACE: 'guess'
		});
		expect(sourced(text('locale'))).toMatchObject({ LANG: 'C.UTF-8' });
		expect(sourced(text('keyboard').replace('LAYOUT', 'LAYOqx'))).not.toHaveProperty('XKBLAYOUT');
	}
);
