import { fault, ok, type Fault, type Result } from '../../basics/result';
import { hSyncKhzOf, refreshHzOf } from '../../standards/videoTiming';
import { readBase } from './base';
import { readCta } from './cta';
import { readDisplayId } from './displayId';
import { BLOCK_BYTES, sumsToZero, type Edid, type EdidCta, type EdidMode } from './edid';

const HEADER = [0x00, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0x00];
const MOST_BLOCKS = 256;
const CTA_TAG = 0x02;
const DISPLAY_ID_TAG = 0x70;
const MAP_TAG = 0xf0;

/** Several CTA-861 extensions speak as one: lists joined, the first word on anything else. */
const joined = (a: EdidCta | null, b: EdidCta): EdidCta =>
	a === null
		? b
		: {
				...a,
				sound: [...a.sound, ...b.sound],
				speakers: [...new Set([...a.speakers, ...b.speakers])],
				ycbcr: [...new Set([...a.ycbcr, ...b.ycbcr])],
				colorimetry: [...new Set([...a.colorimetry, ...b.colorimetry])],
				basicAudio: a.basicAudio || b.basicAudio,
				hdmi: a.hdmi ?? b.hdmi,
				hdr: a.hdr ?? b.hdr,
				quantizationSelectable: a.quantizationSelectable || b.quantizationSelectable
			};

/**
 * What the bytes say. Only a wrong header, or less than one block, is a fault; all else that is wrong is a remark, and what can be
 * used is. Source: VESA E-EDID A.2; CTA-861-H; VESA DisplayID 1.3.
 */
export function readEdid(bytes: Uint8Array): Result<Edid> {
	if (bytes.length < BLOCK_BYTES)
		return fault('too-short', `These are ${bytes.length} bytes; an EDID has at least ${BLOCK_BYTES}. Copy all of it.`);
	if (HEADER.some((byte, n) => bytes[n] !== byte))
		return fault('no-header', 'This is no EDID: it does not begin with 00 FF FF FF FF FF FF 00.');
	const base = readBase(bytes.subarray(0, BLOCK_BYTES));
	const remarks: Fault[] = [...base.remarks];
	const extensionBlocks = bytes[126]!;
	const blocks = Array.from({ length: Math.min(MOST_BLOCKS, Math.floor(bytes.length / BLOCK_BYTES)) }, (_, n) =>
		bytes.subarray(n * BLOCK_BYTES, (n + 1) * BLOCK_BYTES)
	);
	const blockChecksumOk = blocks.map(sumsToZero);
	remarks.push(...wrongSums(blockChecksumOk), ...wrongLength(bytes.length, extensionBlocks));
	const modes: EdidMode[] = [...base.modes];
	let cta: EdidCta | null = null;
	blocks.slice(1).forEach((block, n) => {
		if (block[0] === CTA_TAG) {
			const read = readCta(block, remarks);
			cta = joined(cta, read.cta);
			modes.push(...read.modes);
		} else if (block[0] === DISPLAY_ID_TAG) modes.push(...readDisplayId(block, remarks));
		else if (block[0] !== MAP_TAG)
			remarks.push({
				code: 'unknown-block',
				message: `Block ${n + 1} is of a kind not read here (${block[0]!.toString(16).padStart(2, '0')}h).`
			});
	});
	const edid: Edid = { ...base, modes, cta, blockChecksumOk, extensionBlocks, remarks };
	return ok({ ...edid, remarks: [...remarks, ...contradictions(edid)] });
}

/** Source: Linux 6.1, drm_edid.c, edid_block_status_valid(). */
const wrongSums = (blockChecksumOk: readonly boolean[]): Fault[] =>
	blockChecksumOk.flatMap((good, n) =>
		good
			? []
			: [
					{
						code: 'checksum',
						message:
							n === 0
								? 'The checksum of the first block is wrong: bytes were lost on the way. The kernel passes over such an EDID, and offers only modes that any screen should take.'
								: `The checksum of block ${n + 1} is wrong. The kernel uses a CTA-861 block all the same; other systems may leave out what it says, and sound with it.`,
						where: `block ${n + 1}`
					}
				]
	);

function wrongLength(length: number, extensionBlocks: number): Fault[] {
	const announced = BLOCK_BYTES * (1 + extensionBlocks);
	if (length < announced)
		return [
			{
				code: 'missing-blocks',
				message: `${extensionBlocks} extension${extensionBlocks === 1 ? ' is' : 's are'} announced, and ${length} of ${announced} bytes are here: read it again, whole.`
			}
		];
	return length > announced
		? [{ code: 'more-than-announced', message: `${length - announced} bytes follow that byte 126 does not announce.` }]
		: [];
}

/** Half a line more or less is rounding. */
const SLACK = { hz: 0.5, khz: 0.5, mhz: 5 };

function contradictions({ ranges, modes, preferred, widthCm, heightCm }: Edid): Fault[] {
	const out: Fault[] = [];
	const beyond = ranges
		? modes.filter(({ timing }) => {
				const hz = refreshHzOf(timing);
				const khz = hSyncKhzOf(timing);
				return (
					hz < ranges.vMinHz - SLACK.hz ||
					hz > ranges.vMaxHz + SLACK.hz ||
					khz < ranges.hMinKhz - SLACK.khz ||
					khz > ranges.hMaxKhz + SLACK.khz ||
					(ranges.maxPixelClockMhz !== null && timing.pixelClockKhz / 1000 > ranges.maxPixelClockMhz + SLACK.mhz)
				);
			}).length
		: 0;
	if (beyond > 0)
		out.push({
			code: 'beyond-own-ranges',
			message: `${beyond} of its modes lie outside the ranges that it states itself. Its list of modes is the surer of the two.`
		});
	const shown = modes.find(({ timing }) => timing === preferred);
	if (
		shown?.widthMm &&
		shown.heightMm &&
		widthCm &&
		heightCm &&
		(Math.abs(shown.widthMm - widthCm * 10) > 15 + widthCm || Math.abs(shown.heightMm - heightCm * 10) > 15 + heightCm)
	)
		out.push({
			code: 'two-sizes',
			message: `It says ${widthCm} × ${heightCm} cm in one place and ${shown.widthMm} × ${shown.heightMm} mm in another. Measure the picture.`
		});
	return out;
}
