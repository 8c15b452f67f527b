import type { Claim } from '../../claims';
import { withUnit } from '../../basics/format';
import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import type { Judge } from '../../manifest';
import { assessLevel, assessSpeakers } from './assessLevel';
import { computeDigitalVolume } from './gainChain';
import { computeMeetings } from './meetings';
import { isUnnamed, playbackOf, probedDevice, routeOf, waysOf } from './route';
import { isOfAnother, nameCard } from '../../probe/nameCard';
import type { Treatment } from './treatment';
import type { SoundSettings } from './settings';

const own = changing<SoundSettings>('sound');

const change = (label: string, part: Partial<SoundSettings>): Fix => ({
	label,
	apply: own(part)
});

/** All findings from converter to listener. */
export function assessSound(settings: SoundSettings, context: Context, claims: readonly Claim[]): Finding[] {
	return [
		...assessDevice(settings, context),
		...assessOverlay(settings, context),
		...assessSources(settings, context, claims),
		...assessLevel(settings, context),
		...assessSpeakers(settings, context),
		...assessBits(settings, context)
	];
}

/** Is the device named, by a name that lasts, and is it really there? */
function assessDevice(settings: SoundSettings, context: Context): Finding[] {
	const { cardId } = settings;
	const devices = context.probe?.soundDevices ?? [];
	const useFound = devices
		.slice(0, 3)
		.map(({ cardId, deviceNumber }): Fix => ({ label: `Use ${cardId}`, apply: nameCard({ cardId, deviceNumber }) }));
	if (cardId === '')
		return [
			{
				id: 'sound.no-card',
				level: 'stop',
				title: 'The converter has no name yet',
				why: devices.length
					? 'The probe report lists these sound devices. Choose the one that your amplifier hangs on.'
					: 'The player must be told which converter to use, by the name its kernel gives it. Run the probe on the board and paste what it prints, or type the word in brackets from /proc/asound/cards.',
				setting: 'sound.cardId',
				fixes: useFound
			}
		];
	const findings: Finding[] = [];
	const { converter } = context.facts.parts;
	const nameOf = (id: string): string =>
		context.part('converter', id)?.name ?? 'an output that is no longer in the drawer';
	if (converter && isOfAnother(settings, converter))
		findings.push({
			id: 'sound.card-of-another',
			level: 'stop',
			title: `${cardId} is what another output is called`,
			why: `You told this name for ${nameOf(settings.cardFor)}. Its kernel gives ${nameOf(converter)} a name of its own, and by the old one the player finds nothing: silence. ${devices.length ? 'Choose it from what the board reported; was the report made before the change, probe again.' : 'Type the word in brackets from /proc/asound/cards, or run the probe with the new output joined.'}`,
			setting: 'sound.cardId',
			fixes: [...useFound, { label: `This one is called ${cardId} too`, apply: nameCard({ cardId }) }]
		});
	else if (/^\d+$/.test(cardId))
		findings.push({
			id: 'sound.card-number',
			level: 'stop',
			title: `${cardId} is a place in a queue, not a name`,
			why: 'Sound cards are numbered in the order in which they are found, which changes between starts. Use the card\u2019s own name.',
			setting: 'sound.cardId',
			fixes: useFound
		});
	else if (context.probe && !probedDevice(settings, context))
		findings.push({
			id: 'sound.card-absent',
			level: 'stop',
			title: `The board has no ${cardId}, device ${settings.deviceNumber}`,
			why: devices.length
				? `It reported ${devices.map((device) => `${device.cardId} device ${device.deviceNumber}`).join(', ')}. There would be silence.`
				: 'It reported no sound device at all. Is the converter plugged in? Probe again with it in place.',
			setting: 'sound.cardId',
			fixes: useFound
		});
	else if (!context.probe)
		findings.push({
			id: 'sound.card-assumed',
			level: 'note',
			title: `Nobody has seen a card named ${cardId} yet`,
			why: 'Its kernel chooses the name. Until a probe report lists it, it is assumed: another name means silence. Run the probe on the board with the converter joined, and paste what it prints.',
			setting: 'sound.cardId',
			fixes: []
		});
	return [...findings, ...assessDoor(settings, context)];
}

/** The way to the converter is one that it has, and its volume too. */
function assessDoor(settings: SoundSettings, context: Context): Finding[] {
	const findings: Finding[] = [];
	const ways = waysOf(settings, context);
	if (settings.travel !== 'shared' && ways && !ways.includes(settings.door))
		findings.push({
			id: 'sound.no-way',
			level: 'stop',
			title: `There is no ${settings.door} way to this converter`,
			why: `alsa-lib\u2019s own configuration has such a way for some drivers only, and for this one it has none: opening it fails, and nothing is heard. A digital output on the header or on USB takes plain samples and frames them itself.`,
			setting: 'sound.door',
			fixes: ways
				.slice(0, 2)
				.map((door) => change(door === 'hw' ? 'Use plain samples' : `Use the ${door} way`, { door }))
		});
	const { mixerName, volumeAt } = settings;
	if (volumeAt === 'converter') {
		const listed = probedDevice(settings, context)?.mixers ?? [];
		const partVolume = context.part('converter', context.facts.parts.converter)?.volume;
		const names = listed.length ? listed.map((mixer) => mixer.name) : partVolume ? [partVolume.name] : [];
		if (!names.includes(mixerName))
			findings.push({
				id: 'sound.no-mixer',
				level: 'stop',
				title:
					mixerName === '' ? 'Which of the converter\u2019s controls?' : `The converter has no control "${mixerName}"`,
				why: names.length
					? `${listed.length ? 'It has' : 'Its class has'} ${names.map((name) => `"${name}"`).join(', ')}. Without the right one the player never starts, so that nothing is louder than planned.${listed.length ? '' : ' When yours has another, its probe report says so.'}`
					: 'This converter has no volume of its own. Set the volume in the player, or on the amplifier.',
				setting: 'sound.mixerName',
				fixes: [
					...names.slice(0, 3).map((name) => change(`Use "${name}"`, { mixerName: name })),
					...(names.length ? [] : [change('Set it in the player', { volumeAt: 'player' })])
				]
			});
	}
	return findings;
}

/** A board lists a converter on its header only when something tells it what sits there. */
function assessOverlay({ overlay }: SoundSettings, context: Context): Finding[] {
	if (!isUnnamed(context) || overlay !== '' || context.probe) return [];
	return [
		{
			id: 'sound.no-overlay',
			level: 'caution',
			title: 'Nothing tells the board what sits on its header',
			why: `${context.part('converter', context.facts.parts.converter)!.name} carries no memory that says so: the board\u2019s start file has to name it, or no card is listed and nothing is heard. Type the overlay that its maker prints behind dtoverlay=; the card set brings it where the plan knows how the board starts, and the run sheet says where it goes otherwise.`,
			setting: 'sound.overlay',
			fixes: []
		}
	];
}

/** What the sources meet. */
function assessSources(settings: SoundSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const route = routeOf(settings, context);
	const treated = computeMeetings(settings, context, claims);
	if (!route || treated.length === 0) return [];
	const ways = waysOf(settings, context) ?? [];
	const having = (verdict: Treatment['verdict']) => treated.filter(({ treatment }) => treatment.verdict === verdict);
	const names = (list: typeof treated): string =>
		list
			.map(({ what }) => what)
			.slice(0, 3)
			.join(', ') + (list.length > 3 ? ` and ${list.length - 3} more` : '');
	const findings: Finding[] = [];
	if (having('refused').length) {
		const door = ways.find((way) => way !== 'hw');
		findings.push({
			id: 'sound.framed-only',
			level: 'stop',
			title: 'This output refuses plain samples',
			why: `Its driver takes sound only in the frames of IEC 60958, so opening it as hw: fails and nothing is heard.${door ? ` The ${door} way frames each sample and changes none.` : ' Nothing is known that leads to it.'}`,
			setting: 'sound.door',
			fixes: door ? [change(`Use the ${door} way`, { door })] : []
		});
	}
	const resampled = having('resampled');
	const byChoice = resampled.filter(({ shape }) => shape && route.playback.ratesHz.includes(shape.sampleRateHz));
	const byNeed = resampled.filter(({ shape }) => shape && !route.playback.ratesHz.includes(shape.sampleRateHz));
	if (byChoice.length && settings.travel !== 'follow')
		findings.push({
			id: 'sound.resampled-by-choice',
			level: 'note',
			title: `${byChoice.length} of ${treated.length} sources are resampled`,
			why: `${names(byChoice)}: the converter could take ${byChoice.length === 1 ? 'it' : 'them'} as made, but everything is brought to ${settings.fixedRateHz / 1000}\u2009kHz.`,
			setting: 'sound.travel',
			fixes: [change('Follow each source', { travel: 'follow' })]
		});
	if (byNeed.length) {
		const top = Math.max(...route.playback.ratesHz);
		const from = [...new Set(byNeed.map(({ shape }) => `${shape!.sampleRateHz / 1000}\u2009kHz`))].join(' and ');
		findings.push({
			id: 'sound.resampled-by-need',
			level: 'caution',
			title: `${from} ${byNeed.length === 1 ? 'is' : 'are'} resampled`,
			why: `${names(byNeed)}: this converter ${byNeed.some(({ shape }) => shape!.sampleRateHz > top) ? `ends at ${top / 1000}\u2009kHz` : `takes ${route.playback.ratesHz.map((rate) => rate / 1000).join(', ')}\u2009kHz only`}. Few people hear a difference; for untouched samples choose a converter that takes this rate.`,
			setting: 'parts.converter',
			fixes: converterFor(settings, context, Math.max(...byNeed.map(({ shape }) => shape!.sampleRateHz)))
		});
	}
	const mixed = having('mixed').filter(({ shape, treatment }) => shape!.channels > treatment.channels);
	if (mixed.length)
		findings.push({
			id: 'sound.mixed-down',
			level: 'note',
			title: `${mixed.length} of ${treated.length} sources are mixed down`,
			why: `${names(mixed)}: more channels than the converter has. All of it is heard, from fewer speakers.`,
			setting: 'parts.converter',
			fixes: []
		});
	const narrowed = having('narrowed');
	if (narrowed.length)
		findings.push({
			id: 'sound.narrowed',
			level: 'note',
			title: `${narrowed.length} of ${treated.length} sources lose bits`,
			why: `${names(narrowed)}: the converter takes ${narrowed[0]!.treatment.bitDepth} bit. The noise this adds lies ${withUnit(narrowed[0]!.treatment.bitDepth * 6.02, 0, 'dB')} below full scale.`,
			setting: 'parts.converter',
			fixes: []
		});
	return findings;
}

/** Other converters of the drawer that take the rate as it is; only offered while no probe has named the real one. */
function converterFor(settings: SoundSettings, context: Context, rateHz: number): Fix[] {
	if (playbackOf(settings, context)?.sure === 'measured') return [];
	const better = context.drawer.find(
		(part) =>
			part.kind === 'converter' && part.playback.ratesHz.includes(rateHz) && part.id !== context.facts.parts.converter
	);
	return better ? [{ label: `Use ${better.name}`, apply: context.change.choosePart('converter', better.id) }] : [];
}

/** Where the volume costs bits. */
function assessBits(sound: SoundSettings, context: Context): Finding[] {
	const findings: Finding[] = [];
	if (sound.volumeAt === 'player' && sound.volumeDb < 0) {
		const bits = playbackOf(sound, context)?.playback.formats.some((format) => format !== 'S16_LE' && format !== 'U8')
			? 24
			: 16;
		const cost = computeDigitalVolume({ volumeDb: sound.volumeDb, sourceBits: 16, wordBits: bits });
		const ownVolume = context.part('converter', context.facts.parts.converter)?.volume ?? null;
		if (cost.lostBits >= 1)
			findings.push({
				id: 'sound.volume-costs',
				level: 'note',
				title: `The volume costs ${cost.lostBits.toFixed(1)} of 16 bits`,
				why: `The player turns it down in ${bits}-bit words, which leaves ${withUnit(cost.dynamicRangeDb, 0, 'dB')} between loudest and quietest. ${ownVolume ? 'The converter\u2019s own volume costs nothing.' : 'Leaving it at full and using the amplifier\u2019s knob costs nothing.'}`,
				setting: 'sound.volumeAt',
				fixes: ownVolume
					? [
							change('Set it in the converter', {
								volumeAt: 'converter',
								mixerName: ownVolume.name,
								volumeDb: Math.max(ownVolume.lowestDb, sound.volumeDb)
							})
						]
					: []
			});
	}
	return findings;
}

export default assessSound satisfies Judge<SoundSettings>;
