import { withUnit } from '../../basics/format';
import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import { driverOf, loadOf, type Driver } from '../../parts/amplifier';
import type { PartOf } from '../../parts/schema';
import { HARMFUL_DB, shareInWords } from './dose';
import { computeLevels, rangeDb, volumeDb, type Levels } from './levels';
import type { SoundSettings } from './settings';

const own = changing<SoundSettings>('sound');
const change = (label: string, part: Partial<SoundSettings>): Fix => ({ label, apply: own(part) });

/** Rooms to begin with, from the one that makes most of a speaker to the one that makes nothing. */
const ROOMS: readonly (readonly [string, Partial<SoundSettings>])[] = [
	['A small hard room, 20\u2009m³', { place: 'room', roomM3: 20, furnishing: 'hard' }],
	['A furnished room, 60\u2009m³', { place: 'room', roomM3: 60, furnishing: 'ordinary' }],
	['A hall, 400\u2009m³', { place: 'room', roomM3: 400, furnishing: 'ordinary' }],
	['Outdoors', { place: 'outdoors' }]
];
/** Below this the room's part in it is no news. */
const WIDE_DB = 6;

/** Is it too loud for ears, and does the amplifier clip? */
export function assessLevel(sound: SoundSettings, context: Context): Finding[] {
	const levels = computeLevels(sound, context);
	if (!levels) return [];
	const { peak, average, uncertainDb } = levels;
	const findings: Finding[] = [];
	const isHarmful = peak.splDb > HARMFUL_DB;
	if (peak.splDb > sound.loudestDb)
		findings.push({
			id: isHarmful ? 'sound.harmful' : 'sound.too-loud',
			level: isHarmful ? 'stop' : 'caution',
			title: `Up to ${withUnit(peak.splDb, 0, 'dB')} at the listener`,
			why: `You allow ${withUnit(sound.loudestDb, 0, 'dB')}, and the amplifier\u2019s knob may be fully open. Music would average up to ${withUnit(average.splDb, 0, 'dB')}: ears have a day\u2019s share of that after ${shareInWords(average.splDb)} (85\u2009dB for 8 hours, half as long for each 3\u2009dB more).${isHarmful ? ' Nothing is written that can be this loud.' : ''}`,
			setting: sound.volumeAt === 'fixed' ? 'sound.volumeAt' : 'sound.volumeDb',
			fixes: lowered(sound, context, 'Set', ({ peak: { splDb } }) => splDb <= sound.loudestDb)
		});
	else if (peak.clipped)
		findings.push({
			id: 'sound.clips',
			level: 'caution',
			title: 'The amplifier clips on loud passages',
			why: 'With its knob fully open it is asked for more than it has. Turn the knob back, or lower the volume here.',
			setting: 'sound.volumeDb',
			fixes: lowered(sound, context, 'Set', (lower) => !lower.peak.clipped)
		});
	if (sound.place === 'unknown' && uncertainDb > WIDE_DB)
		findings.push({
			id: 'sound.room-unknown',
			level: 'note',
			title: `The room decides ${withUnit(uncertainDb, 0, 'dB')} of the level`,
			why: `At ${withUnit(sound.distanceM, 1, 'm')} music averages ${rangeDb(average.splDb, uncertainDb)}: least in the open air, most in a small tiled room. Until the room is known, the most counts.`,
			setting: 'sound.place',
			fixes: ROOMS.map(([label, part]) => change(label, part))
		});
	return findings;
}

const LOWEST_DB = -90;
/** The highest volume, in half decibels, at which it is well. The lower, the better, so it is found by halving; an amplifier that clips hides how far it is. */
function lowered(settings: SoundSettings, context: Context, verb: string, isWell: (levels: Levels) => boolean): Fix[] {
	const volumeAt = settings.volumeAt === 'fixed' ? 'player' : settings.volumeAt;
	const where = settings.volumeAt === 'fixed' ? ' in the player' : '';
	const top = Math.floor(volumeDb(settings) * 2);
	const wellAt = (half: number): boolean => {
		const levels = computeLevels({ ...settings, volumeAt, volumeDb: half / 2 }, context);
		return levels !== null && isWell(levels);
	};
	let well = LOWEST_DB * 2;
	if (!wellAt(well)) return [];
	for (let ill = top + 1; ill - well > 1;) {
		const middle = Math.floor((well + ill) / 2);
		if (wellAt(middle)) well = middle;
		else ill = middle;
	}
	const db = well / 2;
	return [change(`${verb} ${withUnit(db, 1, 'dB')}${where}`, { volumeAt, volumeDb: db })];
}

/** Does the amplifier bear what hangs on it, and do the speakers bear the amplifier? */
export function assessSpeakers(sound: SoundSettings, context: Context): Finding[] {
	const driver = driverOf(context);
	const speakers = context.part('speakers', context.facts.parts.speakers);
	const joined = driver && speakers && !driver.builtIn;
	return [
		...assessTwoAmplifiers(context),
		...(joined ? [...assessLoad(sound, driver, speakers), ...assessPower(sound, context, speakers)] : [])
	];
}

/** A rating such as "4 Ω" already allows for the dip of 20 % that IEC 60268-5, 16.1 allows a speaker of that impedance. */
const DIP = 0.8;

function assessLoad(sound: SoundSettings, driver: Driver, speakers: PartOf<'speakers'>): Finding[] {
	const load = loadOf(speakers, driver.channels, sound.wiring);
	const bears = ({ ratedOhm, leastOhm }: typeof load): boolean =>
		ratedOhm >= driver.leastOhm - 1e-9 && leastOhm >= DIP * driver.leastOhm - 1e-9;
	if (bears(load)) return [];
	const other = sound.wiring === 'parallel' ? 'series' : 'parallel';
	const several = load.onOneChannel > 1;
	return [
		{
			id: 'sound.load',
			level: 'stop',
			title: `${withUnit(load.ratedOhm, 1, 'Ω')} on each channel is less than the amplifier takes`,
			why: `${several ? `${load.onOneChannel} speakers of ${withUnit(speakers.ohm, 0, 'Ω')} in ${sound.wiring} are` : 'The speaker is'} ${withUnit(load.ratedOhm, 1, 'Ω')}, down to ${withUnit(load.leastOhm, 1, 'Ω')} at some pitches; ${driver.name} is rated for ${withUnit(driver.leastOhm, 0, 'Ω')} and more. It would run hot, switch itself off or burn.`,
			setting: several ? 'sound.wiring' : 'parts.speakers',
			fixes:
				several && bears(loadOf(speakers, driver.channels, other))
					? [change(`Wire them in ${other}`, { wiring: other })]
					: []
		}
	];
}

function assessPower(sound: SoundSettings, context: Context, { ratedW }: PartOf<'speakers'>): Finding[] {
	const levels = computeLevels(sound, context);
	if (!levels || ratedW === null || levels.peak.powerPerSpeakerW <= ratedW) return [];
	return [
		{
			id: 'sound.speaker-power',
			level: levels.average.powerPerSpeakerW > ratedW ? 'stop' : 'caution',
			title: `Up to ${withUnit(levels.peak.powerPerSpeakerW, 0, 'W')} for a speaker that takes ${withUnit(ratedW, 0, 'W')}`,
			why: `A full-scale passage with the amplifier\u2019s knob fully open is more than the speaker is rated for; music averages ${withUnit(levels.average.powerPerSpeakerW, 1, 'W')}. A speaker dies of heat, first its tweeter.`,
			setting: sound.volumeAt === 'fixed' ? 'sound.volumeAt' : 'sound.volumeDb',
			fixes: lowered(sound, context, 'Set', ({ peak }) => peak.powerPerSpeakerW <= ratedW)
		}
	];
}

/** A converter that drives speakers has no output that another amplifier may be joined to. */
function assessTwoAmplifiers(context: Context): Finding[] {
	const { parts } = context.facts;
	const converter = context.part('converter', parts.converter);
	const amplifier = context.part('amplifier', parts.amplifier);
	if (!converter?.amplifier || !amplifier) return [];
	return [
		{
			id: 'sound.two-amplifiers',
			level: 'stop',
			title: 'Two amplifiers one behind the other',
			why: `${converter.name} drives speakers itself. Its outputs are ${converter.amplifier.bridged ? 'driven on both wires, and ' : ''}far too strong for the input of ${amplifier.name}: either of them may be destroyed.`,
			setting: 'parts.amplifier',
			fixes: [{ label: 'Leave the second one out', apply: context.change.choosePart('amplifier', null) }]
		}
	];
}
