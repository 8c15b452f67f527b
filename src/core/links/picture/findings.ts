import { changing } from '../../changes';
import { claimsOn, type Claim } from '../../claims';
import { fromHex, toBase64 } from '../../formats/edid';
import type { Context, Finding, Fix } from '../../link';
import { refreshHzOf } from '../../standards/videoTiming';
import { ACTIONS, clashesIn, USUAL_KEYS } from './controls';
import { totalMs } from './delay';
import { contrastOf, delayOf } from './figures';
import { computeTolerance } from './ladder';
import { legibleSizes } from './legibility';
import { anyEdge, NO_EDGES, questionEdges } from './overscan';
import type { PictureSettings } from './settings';
import { choiceOf, panelShape, pictureWay, type PictureWay } from './way';
import { modeInWords, ownEdid } from './written';

const own = changing<PictureSettings>('picture');
const fix = (label: string, change: Partial<PictureSettings>): Fix => ({ label, apply: own(change) });

/** All findings from board to eye. */
export function assessPicture(settings: PictureSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const way = pictureWay(settings, context);
	if (!way.screen)
		return [
			{
				id: 'picture.no-screen',
				level: 'stop',
				title: 'No screen is chosen',
				why: 'Which modes go, how large letters must be and whether edges are cut hangs on the screen. Choose one, or do without a picture.',
				setting: 'parts.screen',
				fixes: [{ label: 'Do without a picture', apply: context.change.use('picture', false) }]
			}
		];
	return [
		...assessWord(settings, context, way),
		...assessMode(settings, context, way),
		...assessCadence(settings, way, context),
		...assessEdges(settings, way),
		...assessStart(settings, context, way),
		...assessContents(context, claims),
		...assessSight(settings, way),
		...assessStill(settings, way, context),
		...assessDrawing(settings, context),
		...assessDelay(settings, context),
		...assessLadder(way),
		...assessControls(settings, context)
	];
}

/** What the screen says of itself. */
function assessWord(settings: PictureSettings, context: Context, { edid, output, screen }: PictureWay): Finding[] {
	if (edid) {
		const [first] = edid.remarks;
		return first
			? [
					{
						id: 'picture.edid-odd',
						level: edid.remarks.some(({ code }) => code === 'checksum' || code === 'missing-blocks')
							? 'caution'
							: 'note',
						title: 'What the screen says of itself is not all in order',
						why: `${edid.remarks.map(({ message }) => message).join(' ')} An EDID of our own, written from the chosen mode, takes its place where it fails.`,
						setting: 'picture.edid',
						fixes: settings.writesEdid ? [] : [fix('Write an EDID of our own', { writesEdid: true })]
					}
				]
			: [];
	}
	if (settings.edid !== '')
		return [
			{
				id: 'picture.edid-unreadable',
				level: 'caution',
				title: 'The EDID cannot be read',
				why: 'Its header is wrong, or it is less than one block. Read it again from the screen, or take it out: then modes are taken from the screen\u2019s class.',
				setting: 'picture.edid',
				fixes: [fix('Take it out', { edid: '' })]
			}
		];
	if (output === 'ladder' && !settings.ranges)
		return [
			{
				id: 'picture.no-label',
				level: 'caution',
				title: 'Nobody knows which rates the old monitor follows',
				why: `On this way it cannot say so itself, and a mode beyond its rates shows nothing; very old tubes can be harmed by one. Read its label: ranges in kHz across and Hz down.`,
				setting: 'picture.ranges',
				fixes: [
					fix('It is a plain one: 30 to 80 kHz, 56 to 75 Hz', {
						ranges: { hMinKhz: 30, hMaxKhz: 80, vMinHz: 56, vMaxHz: 75 }
					})
				]
			}
		];
	if (output !== 'digital') return [];
	const reported = context.probe?.connectors.find(({ name, edidHex }) => edidHex && name.endsWith(settings.connector));
	return [
		{
			id: 'picture.no-edid',
			level: 'note',
			title: 'Nobody has asked the screen what it takes',
			why: `Modes are those that ${screen!.name} should have by its class. Its EDID, from a probe report or a file, makes them certain.`,
			setting: 'picture.edid',
			fixes: reported ? [fix('Use the one of the probe report', { edid: toBase64(fromHex(reported.edidHex!)) })] : []
		}
	];
}

/** Whether the mode passes everything on the way. */
function assessMode(settings: PictureSettings, context: Context, way: PictureWay): Finding[] {
	const { chosen, candidates } = way;
	const best = candidates.find(({ refused }) => refused.length === 0);
	const useBest = best ? [fix(`Use ${modeInWords(best.timing)}`, { mode: choiceOf(best) })] : [];
	if (way.unknownChoice)
		return [
			{
				id: 'picture.mode-unknown',
				level: 'stop',
				title: 'The chosen mode is none that this screen has',
				why: 'It was chosen for another screen, or with another EDID. The player finds no such mode and shows nothing.',
				setting: 'picture.mode',
				fixes: useBest
			}
		];
	if (!chosen)
		return [
			{
				id: 'picture.none-goes',
				level: 'stop',
				title: 'No mode passes board, cable and screen',
				why: `The best of them fails because ${candidates[0]?.refused.join('; ') ?? 'the screen announces none'}. Take a cable or adapter that carries more, or another screen.`,
				setting: 'picture.mode',
				fixes: []
			}
		];
	if (chosen.refused.length > 0)
		return [
			{
				id: 'picture.mode-refused',
				level: 'stop',
				title: `${modeInWords(chosen.timing)} does not get there`,
				why: `${chosen.refused.join('; ')}. The screen stays dark, or says that it has no signal.`,
				setting: 'picture.mode',
				fixes: useBest
			}
		];
	const written = ownEdid(settings, context);
	if (written && !written.ok)
		return [
			{
				id: 'picture.edid-unwritable',
				level: 'stop',
				title: 'That mode cannot stand in an EDID',
				why: `${written.faults[0]!.message}`,
				setting: 'picture.writesEdid',
				fixes: [fix('Leave the screen its own', { writesEdid: false })]
			}
		];
	return [];
}

/** Films whose frames fall unevenly. */
function assessCadence(_settings: PictureSettings, { chosen, candidates }: PictureWay, context: Context): Finding[] {
	const slips = chosen?.cadence?.irregularSeconds ?? null;
	if (!chosen || slips === null || slips > 20) return [];
	const { film } = context.facts;
	const even = candidates.filter(
		({ refused, cadence }) =>
			refused.length === 0 && (cadence!.irregularSeconds === null || cadence!.irregularSeconds > 20)
	);
	return [
		{
			id: 'picture.uneven',
			level: 'caution',
			title: `${film!.framesPerSec} frames a second stutter on ${Number(refreshHzOf(chosen.timing).toFixed(2))}\u2009Hz`,
			why: `Some frames stand longer than others, ${(1 / slips).toFixed(1)} times a second: slow pans show it. ${even.length > 0 ? 'A mode that fits the film ends it.' : `No mode of this screen fits. Bring the film to a rate that does: ffmpeg with -r ${Math.round(refreshHzOf(chosen.timing) / 2)} makes it anew, and the stutter then lies in the file.`}`,
			setting: 'picture.mode',
			fixes: even.slice(0, 2).map((one) => fix(`Use ${modeInWords(one.timing)}`, { mode: choiceOf(one) }))
		}
	];
}

/** Most that the kernel's property for margins takes, px. Source: Linux 6.1, drm_mode_create_tv_margin_properties(). */
const MOST_KERNEL_MARGIN = 100;
/** What is safe for a set that nobody has read yet: 3.5 % on each side. Source: EBU R 95, "safe areas". */
const SAFE_PART = 0.035;

function assessEdges(settings: PictureSettings, { screen, chosen }: PictureWay): Finding[] {
	const { edges, wholePicture, edgesBy } = settings;
	if (!chosen) return [];
	if (!anyEdge(edges)) {
		if (!screen!.cutsEdges || wholePicture === 'on') return [];
		const safe = {
			left: Math.round(chosen.timing.widthPx * SAFE_PART),
			right: Math.round(chosen.timing.widthPx * SAFE_PART),
			top: Math.round(chosen.timing.heightPx * SAFE_PART),
			bottom: Math.round(chosen.timing.heightPx * SAFE_PART)
		};
		return [
			{
				id: 'picture.edges-unread',
				level: 'caution',
				title: 'The set cuts its edges, and nobody has read how much',
				why: `${wholePicture === 'untried' ? 'Look first for a setting of the set that shows the whole picture: it may be called full pixel, just scan or 1:1, often under picture size. Then nothing needs trimming and nothing is scaled.' : 'Without such a setting, read the edges off the test card.'} Until then captions and clocks at the edge are lost.`,
				setting: 'picture.edges',
				fixes: [
					fix('The set shows everything now', { wholePicture: 'on' }),
					fix('Leave 3.5 % free on each side for now', { edges: safe })
				]
			}
		];
	}
	const odd = questionEdges(chosen.timing, edges).map(({ code, message }): Finding => ({
		id: `picture.edges-${code}`,
		level: code === 'impossible' ? 'stop' : code === 'shape' ? 'note' : 'caution',
		title: {
			impossible: 'These edges leave no picture',
			much: 'One edge is read very large',
			uneven: 'The edges are uneven',
			shape: 'What is left has another shape'
		}[code as 'impossible' | 'much' | 'uneven' | 'shape'],
		why: message,
		setting: 'picture.edges',
		fixes: code === 'shape' ? [] : [fix('Forget the reading', { edges: NO_EDGES })]
	}));
	const widest = Math.max(...Object.values(edges));
	if (edgesBy === 'kernel')
		odd.push({
			id: 'picture.kernel-margins',
			level: widest > MOST_KERNEL_MARGIN ? 'caution' : 'note',
			title:
				widest > MOST_KERNEL_MARGIN ? 'The kernel\u2019s margins end at 100 pixels' : 'Not every driver knows margins',
			why: 'Where the display\u2019s driver has them, everything is scaled into what is left, console too: a little softer, and nobody else has to know. Where it has not, they are passed over without a word. The player\u2019s own margins work everywhere, for what the player shows.',
			setting: 'picture.edgesBy',
			fixes: [fix('Leave them to the player', { edgesBy: 'player' })]
		});
	return odd;
}

/** A screen that is off when the board starts, and who tells the kernel. */
function assessStart(settings: PictureSettings, { facts }: Context, { output, chosen }: PictureWay): Finding[] {
	if (output === 'ladder' || output === 'flat' || !chosen) return [];
	const out: Finding[] = [];
	if (settings.whenOff === 'force' && !settings.writesEdid)
		out.push({
			id: 'picture.forced-blind',
			level: 'caution',
			title: 'A screen that is off at the start would be driven blind',
			why: `The connector is switched on by force, so the picture is there when the screen wakes. But a kernel that could not ask the screen knows neither its modes nor that it takes sound: it computes ${modeInWords(chosen.timing)} by formula, and sends no sound. An EDID on the card tells it both. Costs: another screen plugged in later is driven like this one.`,
			setting: 'picture.writesEdid',
			fixes: [
				fix('Write an EDID of our own', { writesEdid: true }),
				fix('Start the player anew when a screen comes', { whenOff: 'restart' })
			]
		});
	if (facts.startsBy === null && facts.system === 'plain')
		out.push({
			id: 'picture.kernel-by-hand',
			level: 'note',
			title: 'The kernel\u2019s line is yours to change',
			why: 'Nobody has said how the board starts, so the card set does not bring the line that the kernel reads. Paste it under Card, and the set brings it with mode, EDID and rotation added; else the run sheet says what to add.',
			setting: 'card.bootStyle',
			fixes: []
		});
	return out;
}

/** Something to be seen must be in the list. */
function assessContents(context: Context, claims: readonly Claim[]): Finding[] {
	const shown = claimsOn(claims, 'picture');
	if (shown.length > 0 || context.facts.listed === undefined || context.facts.listed === 0) return [];
	return [
		{
			id: 'picture.nothing-to-show',
			level: 'stop',
			title: 'The list holds nothing to be seen',
			why: 'Every entry is sound alone: the screen would stay at the console. Add a film or pictures under Sources.',
			setting: 'sources.items',
			fixes: [{ label: 'Do without a picture', apply: context.change.use('picture', false) }]
		}
	];
}

/** Fewer lines of the smallest readable letters than this make no notice. */
const FEWEST_LINES = 8;
/** Below this, grey text is lost. Source: WCAG 2.2, 1.4.3, asks for 4.5 of the page; the room may not take more than that. */
const LEAST_CONTRAST = 7;

function assessSight(settings: PictureSettings, way: PictureWay): Finding[] {
	const panel = panelShape(way);
	if (!panel || !way.chosen || !way.screen) return [];
	const out: Finding[] = [];
	const { fontPx } = legibleSizes(panel, way.chosen.timing.heightPx, settings.distanceM, settings);
	const lines = Math.floor(way.chosen.timing.heightPx / (fontPx * 1.3));
	if (lines < FEWEST_LINES)
		out.push({
			id: 'picture.text-small',
			level: 'note',
			title: `From ${settings.distanceM}\u2009m only ${lines} lines of text can be read`,
			why: `Letters must be ${fontPx}\u2009px there. Pictures and films do not mind; subtitles, clocks and notices do. A larger screen, or people nearer by, gives more.`,
			setting: 'picture.distanceM',
			fixes: []
		});
	const contrast = contrastOf(settings, way.screen);
	if (contrast < LEAST_CONTRAST)
		out.push({
			id: 'picture.washed-out',
			level: 'caution',
			title: `In that light white is only ${contrast.toFixed(1)} times as bright as black`,
			why: `${way.screen.name} gives ${way.screen.peakCdM2}\u2009cd/m², and the light on it fills its black. Shade it, turn it from the window, or take a brighter one; until then nothing but black on white can be read.`,
			setting: 'picture.light',
			fixes: []
		});
	return out;
}

/** Hours a day that it is on. */
const hoursOn = ({ hours }: PictureSettings): number => {
	if (!hours) return 24;
	const minutes = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
	return ((minutes(hours.until) - minutes(hours.from) + 1440) % 1440 || 1440) / 60;
};
/** A picture that stands for longer harms such a panel within months. Typical. */
const LONG_STILL_SEC = 300;

function assessStill(settings: PictureSettings, { screen }: PictureWay, { facts }: Context): Finding[] {
	if (screen!.panel !== 'oled' && screen!.panel !== 'tube') return [];
	if (facts.wish !== 'photos' && facts.wish !== 'notices') return [];
	const stands = settings.stillSec > LONG_STILL_SEC || facts.listed === 1;
	if (!stands || hoursOn(settings) < 4) return [];
	return [
		{
			id: 'picture.burn-in',
			level: 'caution',
			title: 'A picture that stands so long burns itself in',
			why: `${screen!.name} makes its light in each pixel, and those that are bright for ${hoursOn(settings).toFixed(0)} hours a day wear first. Let pictures change, and the screen rest at night.`,
			setting: 'picture.stillSec',
			fixes: [
				fix('Change every 12 s, dark from 22:00 to 08:00', { stillSec: 12, hours: { from: '08:00', until: '22:00' } })
			]
		}
	];
}

/** Above this a pointer is felt to lag behind the hand. Source: ISO 9241-410 leaves it to the task; typical. */
const FELT_MS = 100;

/** What a computer sends over Wi-Fi. */
function assessDelay(settings: PictureSettings, context: Context): Finding[] {
	const shares = delayOf(settings, context);
	if (shares.length === 0) return [];
	const ms = totalMs(shares);
	const byRadio = context.facts.way === 'radio';
	if (ms <= FELT_MS && !byRadio) return [];
	return [
		{
			id: 'picture.delay',
			level: byRadio ? 'caution' : 'note',
			title: `The picture comes ${ms.toFixed(0)}\u2009ms late`,
			why: `${shares.map(({ what, ms: part }) => `${what} ${part.toFixed(0)}`).join(', ')}. ${byRadio ? 'Over Wi-Fi lost packets show as torn blocks besides: a wire is calmer.' : 'A pointer drags behind; for films and slides nobody minds. The set\u2019s own game or computer mode saves most of it.'}`,
			setting: 'network.way',
			fixes: byRadio ? [{ label: 'Use Ethernet', apply: context.change.useWired() }] : []
		}
	];
}

/** Keys that mean two things, and what nobody can ask for. */
function assessControls({ controls }: PictureSettings, { facts }: Context): Finding[] {
	if (controls.length === 0) return [];
	const out = clashesIn(controls).map(({ key, actions }): Finding => ({
		id: `picture.clash-${key}`,
		level: 'caution',
		title: `${key} asks for two things at once`,
		why: `It stands for ${actions.map((action) => ACTIONS[action].words).join(' and ')}: both happen at each press. Give one of them another key.`,
		setting: 'picture.controls',
		fixes: actions.map((action) => ({
			label: `Only "${ACTIONS[action].words}"`,
			apply: own((all) => ({
				...all,
				controls: all.controls.filter((control) => control.key !== key || control.action === action)
			}))
		}))
	}));
	if (facts.comesBackAlone === false && !controls.some(({ action }) => action === 'shut-down'))
		out.push({
			id: 'picture.no-shutdown-key',
			level: 'note',
			title: 'Nobody can shut it down by a key',
			why: 'Somebody will switch it on and off by hand, and pulling the plug is the only way to do so at the set.',
			setting: 'picture.controls',
			fixes: [
				{
					label: 'Let the power key do it',
					apply: own((all) => ({
						...all,
						controls: [
							...all.controls.slice(0, 23),
							{ action: 'shut-down', by: 'keyboard', key: USUAL_KEYS['shut-down'], scancode: '' }
						]
					}))
				}
			]
		});
	const uncoded = controls.filter(({ by, scancode }) => by === 'remote' && scancode === '');
	if (uncoded.length > 0)
		out.push({
			id: 'picture.remote-unlearned',
			level: 'caution',
			title:
				uncoded.length === 1
					? 'One key of the remote has no code yet'
					: `${uncoded.length} keys of the remote have no code yet`,
			why: 'Each remote sends codes of its own. On the endpoint, run "sudo ir-keytable -c -p nec -t", press the key, and enter the scancode that it prints.',
			setting: 'picture.controls',
			fixes: []
		});
	if (facts.cardId === undefined && controls.some(({ action }) => ['louder', 'quieter', 'mute'].includes(action)))
		out.push({
			id: 'picture.volume-of-nothing',
			level: 'note',
			title: 'A key for the volume, and no sound',
			why: 'This endpoint is silent by plan: such keys do nothing.',
			setting: 'picture.controls',
			fixes: [
				{
					label: 'Take them out',
					apply: own((all) => ({
						...all,
						controls: all.controls.filter(({ action }) => !['louder', 'quieter', 'mute'].includes(action))
					}))
				}
			]
		});
	return out;
}

/** Plain drawing scales each frame with the processor. */
function assessDrawing(settings: PictureSettings, { facts }: Context): Finding[] {
	const { film } = facts;
	if (settings.draws !== 'plain' || !film || film.widthPx * film.heightPx * film.framesPerSec < 30e6) return [];
	return [
		{
			id: 'picture.draws-plain',
			level: 'note',
			title: 'Every frame of this film is scaled by the processor',
			why: 'Drawn plainly, the player needs no graphics driver and starts at once, but each frame goes through the processor. With the graphics unit, scaling costs nothing; its driver brings 90 MB and some seconds at the start.',
			setting: 'picture.draws',
			fixes: [fix('Draw with the graphics unit', { draws: 'gpu' })]
		}
	];
}

/** Bytes a second that scanning out costs, beyond which an old board's memory falls behind now and then. Typical. */
const CALM_BYTES_PER_SEC = 250e6;

function assessLadder({ adapter, chosen, candidates, board }: PictureWay): Finding[] {
	if (!adapter) return [];
	const out: Finding[] = [];
	const { resistorsOhm, logicV, tolerancePercent } = adapter;
	if (resistorsOhm.length > 0) {
		const { worstStepV, monotonicGuaranteed, worstStepFromCode } = computeTolerance(
			{ resistorsOhm, logicV, loadOhm: 75 },
			tolerancePercent
		);
		if (!monotonicGuaranteed)
			out.push({
				id: 'picture.ladder-steps',
				level: 'note',
				title: 'A brighter code may come out darker',
				why: `With resistors of ${tolerancePercent}\u2009% the step after ${worstStepFromCode} may fall by ${(-worstStepV * 1000).toFixed(1)}\u2009mV: gradients show a line there. Resistors of 0.5\u2009% or fewer bits end it; for films it is hardly seen.`,
				setting: 'parts.also',
				fixes: []
			});
	}
	if (!chosen) return out;
	const bytes = (timing: typeof chosen.timing): number => timing.widthPx * timing.heightPx * refreshHzOf(timing) * 4;
	if (board && board.memoryMb <= 1024 && bytes(chosen.timing) > CALM_BYTES_PER_SEC) {
		const calmer = candidates.find(
			({ refused, timing }) => refused.length === 0 && bytes(timing) <= CALM_BYTES_PER_SEC
		);
		out.push({
			id: 'picture.ladder-flicker',
			level: 'caution',
			title: 'The picture may flicker when the board is busy',
			why: `${modeInWords(chosen.timing)} reads ${(bytes(chosen.timing) / 1e6).toFixed(0)}\u2009MB of memory a second, without a pause. On a board of this class decoding takes its share of the same memory, and a line that comes late is seen as a flicker.`,
			setting: 'picture.mode',
			fixes: calmer ? [fix(`Use ${modeInWords(calmer.timing)}`, { mode: choiceOf(calmer) })] : []
		});
	}
	return out;
}
