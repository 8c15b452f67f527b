// Makes src/core/standards/timeZoneTable.ts anew from this machine's tz database: node scripts/zones.mjs
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { root } from './run.mjs';

const HOME = '/usr/share/zoneinfo';
const source = readFileSync(`${HOME}/tzdata.zi`, 'utf8');
const release = /^# version (\S+)/m.exec(source)?.[1] ?? 'unknown';
const regions = new Map();
for (const line of source.split('\n')) {
	const [kind, first, second] = line.split(' ');
	const name = kind === 'Z' ? first : kind === 'L' ? second : undefined;
	if (!name || name === 'Factory' || !existsSync(`${HOME}/${name}`)) continue;
	const [region, ...rest] = name.includes('/') ? name.split('/') : ['', name];
	regions.set(region, [...(regions.get(region) ?? []), rest.join('/')]);
}
const key = (region) => (/^[A-Za-z]+$/.test(region) ? region : `'${region}'`);
const rows = [...regions.keys()]
	.sort()
	.map((region) => `\t${key(region)}:\n\t\t'${regions.get(region).sort().join(' ')}'`);
writeFileSync(
	resolve(root, 'src/core/standards/timeZoneTable.ts'),
	`/**
 * Names of time zones and their older names, by region, as Debian 12 brings them: those that an endpoint can be set to.
 * Source: tz database ${release}, ${HOME}/tzdata.zi, lines Z and L; made by scripts/zones.mjs.
 */
export const ZONES_BY_REGION: Readonly<Record<string, string>> = {
${rows.join(',\n')}
};
`
);
