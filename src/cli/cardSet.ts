import { pageFolder } from '$core/links/notices/files';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { CardFile } from '$core/link/file';
import type { Surroundings } from '$core/link/context';
import type { Asked, Secrets } from '$core/secrets';
import { chain } from '$core/chain';
import { writers } from '$core/writers';
import { derive } from '$core/engines/derive';
import { askedFor, takeSecrets } from '$core/engines/secrets';
import { write } from '$core/engines/write';
import { linesOf } from '$core/formats/lines';
import { picturesOf } from '$core/links/notices/drawn/pictures';
import type { Endpoint } from '$core/plan/workshop';
import { complain, readMedia, Refusal, type PlanFile } from './files';
import { drawPages } from './drawPages';
import { type Flags, text } from './say';

/** Media, and pages where they are shown as pictures: a browser draws them. */
export async function broughtAlong(
	{ plan }: Endpoint,
	context: Surroundings,
	flags: Flags,
	media: PlanFile['media']
): Promise<Secrets> {
	const mediaBytes = readMedia(plan, text(flags, 'media'), media);
	const { notices } = plan;
	const derived = derive(chain, plan, context).context;
	const found = notices.used && notices.shownBy === 'pictures' ? picturesOf(notices, derived) : null;
	if (!found) return { mediaBytes };
	const pageSet = [...write(writers, plan, context, { mediaBytes }), ...pageFolder(notices, derived)];
	return {
		mediaBytes,
		pagePictures: await drawPages(found, pageSet, text(flags, 'browser') ?? 'chromium', complain)
	};
}

/** One secret from the file that its option names, so that it stands in no history and no list of processes. */
function fromFile(id: string, { option, line, why }: Asked, flags: Flags): string {
	const file = text(flags, option);
	if (!file)
		throw new Refusal(
			line === undefined
				? `${id} ${why}. Put the password into a file and add --${option} FILE.`
				: `${id} ${why}. Put a line ${line}=PASSWORD into a file and add --${option} FILE.`
		);
	const whole = readFileSync(file, 'utf8');
	if (line === undefined) return whole.replace(/\r?\n$/, '');
	const found = linesOf(whole).find((one) => one.startsWith(`${line}=`) && one.length > line.length + 1);
	if (!found) throw new Refusal(`${file} has no line ${line}=PASSWORD.`);
	return found.slice(line.length + 1);
}

/** All that the links ask for; salts are new each time. */
function secretsFrom({ id, plan }: Endpoint, context: Surroundings, flags: Flags): Secrets {
	const asked = askedFor(writers, plan, context);
	const typed = Object.fromEntries(asked.map((one) => [one.id, fromFile(id, one, flags)]));
	const taken = takeSecrets(asked, typed, () => randomBytes(16));
	if (!taken.ok) throw new Refusal(taken.faults.map(({ message }) => message).join(' '));
	return taken.value;
}

/** A card set with its secrets, from the files in which they are given. */
export const cardSet = async (
	endpoint: Endpoint,
	context: Surroundings,
	flags: Flags,
	media: PlanFile['media']
): Promise<CardFile[]> =>
	write(writers, endpoint.plan, context, {
		...(await broughtAlong(endpoint, context, flags, media)),
		...secretsFrom(endpoint, context, flags)
	});
